import { demoBoard, demoStations } from '../../../demo/files';
import type { Board } from '../board';
import { seededRandom } from '../math';
import { aimPlan } from './aim';
import { nozzleFor, startingPlan, type HeatPlan } from './plan';
import { marginOf } from './margin';
import { searchPlan } from './search';
import { simulateHeat } from './simulate';
import type { Station } from './station';
import { cutOut } from './tests/cut-out';
import { judgeHeat } from './verdict';

const heron = cutOut(demoBoard('heronlog-4-c'), 'U4', 18);
/** Few settings to go through: two nozzles, two flows, no plate hotter than a hand would lay it under a memory. */
const [station] = demoStations();
const bench1: Station = {
  ...station,
  nozzlesMm: [4, 6],
  flowLpm: [20, 28],
  plate: { ...station.plate!, maxSetC: 120 },
};
function startFor(board: Board, ref: string, station: Station): HeatPlan {
  const part = board.parts.find((p) => p.ref === ref)!;
  return startingPlan(ref, board.alloy, nozzleFor(station.nozzlesMm, board.packages[part.package].bodyMm));
}

describe('a part beside a memory', () => {
  const start = startFor(heron, 'U4', bench1);
  const found = searchPlan(heron, bench1, start)!;

  const full = (plan: HeatPlan) => judgeHeat(heron, plan, simulateHeat(heron, bench1, plan, { frames: false })!);

  test('the aimed starting plan breaks a limit; the found one holds them all, as the full solver judges', () => {
    expect(marginOf(full(aimPlan(heron, bench1, start).plan)).marginK).toBeLessThan(0);
    const verdict = full(found.plan);
    expect(verdict.holds).toBe(true);
    expect(found.marginK).toBeCloseTo(marginOf(verdict).marginK, 9);
    expect(found.marginK).toBeGreaterThan(1);
  });

  test('it says what it changed, what is most fragile, and what the station’s doubt does', () => {
    expect(found.changes.length).toBeGreaterThan(0);
    expect(found.fragile).toMatch(/joint|body|[A-Z]+\d+/);
    expect(Math.min(...found.underDoubtK)).toBeLessThan(found.marginK);
  });

  test('its figures are round: dials in fives, seconds whole', () => {
    for (const s of found.plan.steps) {
      if (s.airSetC !== null) expect(s.airSetC % 5).toBe(0);
      expect([s.durationS % 1, s.flowLpm % 1, s.heightMm % 1]).toEqual([0, 0, 0]);
    }
  });

  test('plans drawn at random from the same settings, its covers laid, are not better by more than a cover is worth', () => {
    const random = seededRandom(3);
    const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)];
    for (let k = 0; k < 10; k++) {
      const flowLpm = pick([20, 28]);
      const plan: HeatPlan = {
        ...start,
        nozzleMm: pick([4, 6]),
        plateSetC: pick([null, 80, 120]),
        covers: found.plan.covers,
        steps: start.steps.map((s) => (s.airSetC === null ? s : { ...s, flowLpm })),
      };
      expect(marginOf(full(aimPlan(heron, bench1, plan).plan)).marginK).toBeLessThan(found.marginK + 3);
    }
  });
});

test('the search can be stopped, and tells how far it is', () => {
  const seen: number[] = [];
  const start = startFor(heron, 'U4', bench1);
  const stopped = searchPlan(heron, bench1, start, { onProgress: (tried) => (seen.push(tried), tried < 2) });
  expect([stopped, seen]).toEqual([undefined, [0, 1, 2]]);
});

test('where only a guard helps, it says by how much the best plan without one misses; a plan that holds without is not told so @long', () => {
  const start = startFor(heron, 'U4', bench1);
  // A station as the simulated logger finds it: cooler and weaker than its figures.
  const weak: Station = { ...bench1, outletEfficiency: 0.79, multiplier: 0.55, outletLagS: 6.5 };
  const found = searchPlan(heron, weak, { ...start, limitsC: { U9: 206 } })!;
  expect(found.marginK).toBeGreaterThanOrEqual(0);
  expect(found.plan.covers).toContain('U9');
  const [, misses] = /^No plan without a guard holds: the best misses by (\d+\.\d) K \(/.exec(found.guard!)!;
  expect(Number(misses)).toBeGreaterThan(0);
  const u9 = found.verdict.neighbours.find((n) => n.ref === 'U9')!;
  expect(found.guard).toContain(`U9 joints stay at ${Math.round(u9.peakC)} °C of 206`);
  // Laid bare again, the same plan breaks the limit that the cover keeps.
  const bare = { ...found.plan, covers: [] };
  const judged = judgeHeat(heron, bare, simulateHeat(heron, weak, bare, { frames: false })!);
  expect(judged.neighbours.find((n) => n.ref === 'U9')!.holds).toBe(false);
});
