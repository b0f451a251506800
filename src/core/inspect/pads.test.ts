import { demoBoard } from '../../../demo/files';
import { seededRandom } from '../math';
import { HARD, NO_PAD_TALLY, drawPadScene, inspectPads, renderPadScene, talliedPads } from '.';
import { extentOf, gapsOf, sitePads } from '../site';

const { packages } = demoBoard('heronlog-4-c');
const SITES = Object.entries(packages)
  .map(([name, pkg]) => [name, sitePads(pkg)] as const)
  .filter(([, pads]) => pads.length >= 6);

test.each(SITES)('%s: each gap joins two pads from edge to edge and crosses no third', (_, pads) => {
  for (const { a, b, from, to, lengthMm } of gapsOf(pads)) {
    expect(lengthMm).toBeGreaterThan(0);
    expect(Math.hypot(to.x - from.x, to.y - from.y)).toBeCloseTo(lengthMm, 9);
    const middle = { x: (from.x + to.x) / 2, y: (from.y + to.y) / 2 };
    const under = pads.filter(
      (p) => Math.abs(middle.x - p.x) < p.wMm / 2 - 1e-9 && Math.abs(middle.y - p.y) < p.hMm / 2 - 1e-9,
    );
    expect(under).toEqual([]);
    expect(a).not.toBe(b);
  }
});

test.each(SITES)('%s: the extent holds every pad, and two of them reach its sides', (_, pads) => {
  const { w, h } = extentOf(pads);
  const right = Math.max(...pads.map((p) => Math.abs(p.x) + p.wMm / 2));
  const low = Math.max(...pads.map((p) => Math.abs(p.y) + p.hMm / 2));
  expect([w / 2, h / 2]).toEqual([right, low]);
});

test('a drawn site repeats from its seed, and its bridges run between pads that are neighbours', () => {
  const [, pads] = SITES[0];
  const draw = (seed: number) => drawPadScene(pads, 60, seededRandom(seed));
  expect(draw(4)).toEqual(draw(4));
  const gaps = new Set(gapsOf(pads).map(({ a, b }) => `${a} ${b}`));
  for (let seed = 0; seed < 20; seed++) {
    for (const { a, b } of draw(seed).bridges) expect(gaps.has(`${a} ${b}`)).toBe(true);
  }
});

test('a site of which nothing was found counts each defect as missed, none as false', () => {
  const random = seededRandom(12);
  const scene = drawPadScene(SITES[0][1], 60, random, { ...HARD, defects: 0.5 });
  const tally = talliedPads(NO_PAD_TALLY, scene, undefined);
  expect(tally.lifted.there + tally.uneven.there + tally.bridged.there).toBeGreaterThan(5);
  for (const kind of [tally.lifted, tally.uneven, tally.bridged]) expect([kind.found, kind.false]).toEqual([0, 0]);
});

test('light that falls off across the site changes no verdict', () => {
  const pads = sitePads(packages.QFN16);
  const random = seededRandom(2);
  const quiet = { ...HARD, hairs: 0, glares: 0, defects: 0.15, noise: 3 };
  const scene = drawPadScene(pads, 70, random, quiet);
  const verdicts = [0, 0.08, -0.1].map((x) => {
    const seen = inspectPads(renderPadScene({ ...scene, slope: { x, y: x / 2 } }, seededRandom(9)), pads)!;
    return [seen.pads.map((p) => p.verdict), seen.bridges];
  });
  expect(verdicts[1]).toEqual(verdicts[0]);
  expect(verdicts[2]).toEqual(verdicts[0]);
});
