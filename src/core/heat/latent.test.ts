import { emptyGrid } from './grid';
import { MeltingLayer, type Latent } from './latent';
import { HeatSolver } from './solver';

/** A thin plate with a thin body on it, both conducting so well that all is at one temperature. */
function plate(latent: Latent) {
  const size = Float64Array.from([0.004, 0.004]);
  const grid = emptyGrid(size, size, Float64Array.from([0.0006, 0.0004]));
  grid.kxy.fill(500);
  grid.kz.fill(500);
  grid.heatCapacity.fill(2e6);
  grid.jointConductance.fill(1e6, 0, 4);
  const solver = new HeatSolver(grid, 25);
  const even = (value: number): Float64Array => new Float64Array(4).fill(value);
  const heat = (film: number, airC: number): void =>
    solver.setFilms({
      topFilm: even(film),
      topC: even(airC),
      bottomFilm: even(0),
      bottomC: even(25),
      sideFilm: 0,
      sideC: 25,
    });
  const layer = new MeltingLayer(
    { grid, slabLayers: 1, xEdgesMm: size, yEdgesMm: size },
    Int32Array.from([0, 1, 2, 3]),
    solver,
    latent,
  );
  return { solver, layer, heat };
}

const run = ({ solver, layer }: ReturnType<typeof plate>, seconds: number, stepS: number): void => {
  for (let k = 0; k < Math.round(seconds / stepS); k++) {
    solver.step(stepS);
    layer.settle();
  }
};

describe('a layer that melts at 200 °C under 150 W/m²K of 300 °C air', () => {
  // Lumped: C = 2000 J/m²K; the plateau lasts Q / (h·(Tair − Tm)) seconds, before and after it the exponential.
  const latent: Latent = { heatJm2: 30_000, solidusC: 200, liquidusC: 200.5 };
  const [h, airC, c] = [150, 300, 2000];
  const untilMelt = (c / h) * Math.log((airC - 25) / (airC - 200));
  const plateau = latent.heatJm2 / (h * (airC - 200));

  test.each([0.05, 0.25])('holds its temperature as long as the closed form says, at steps of %p s', (stepS) => {
    const body = plate(latent);
    body.heat(h, airC);
    run(body, Math.round(untilMelt + plateau / 2), stepS);
    expect(body.solver.temps[0]).toBeGreaterThan(199.5);
    expect(body.solver.temps[0]).toBeLessThan(201.5);
    run(body, Math.round(untilMelt + plateau + 10) - Math.round(untilMelt + plateau / 2), stepS);
    const since = Math.round(untilMelt + plateau + 10) - untilMelt - plateau;
    expect(body.solver.temps[0]).toBeCloseTo(airC - (airC - 200) * Math.exp((-h * since) / c), 0);
  });

  test('gives the heat back when it freezes: heat in is heat stored and molten, all the way', () => {
    const body = plate(latent);
    body.heat(h, airC);
    run(body, 45, 0.1);
    const area = 0.008 * 0.008;
    expect(body.layer.latentJ()).toBeCloseTo(latent.heatJm2 * area, 6);
    body.heat(h, 25);
    run(body, 60, 0.1);
    expect(body.layer.latentJ()).toBe(0);
    const { inJ } = body.solver.heatBalance();
    expect(body.solver.storedJ(25)).toBeCloseTo(inJ, 2);
  });
});

test('between solidus and liquidus it melts by degrees, and without heat of its own nothing changes', () => {
  const wide = plate({ heatJm2: 10_000, solidusC: 180, liquidusC: 220 });
  const none = plate({ heatJm2: 0, solidusC: 180, liquidusC: 220 });
  for (const body of [wide, none]) {
    body.heat(150, 300);
    run(body, 14, 0.1);
  }
  // 2000 J/m²K and, over the range, 250 J/m²K more.
  const molten = wide.layer.latentJ() / (10_000 * 0.008 * 0.008);
  expect(molten).toBeCloseTo((wide.solver.temps[0] - 180) / 40, 1);
  expect(none.solver.temps[0]).toBeGreaterThan(wide.solver.temps[0]);
});
