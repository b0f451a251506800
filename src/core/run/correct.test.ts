import { demoBoard } from '../../../demo/files';
import {
  GOALS_BY_ALLOY,
  NOMINAL_STATION,
  covarianceOf,
  openingPlan,
  simulateHeat,
  startingPlan,
  withCopper,
} from '../heat';
import { correctRun, flownUntil, knownBefore, type Correction } from '.';
import { cutOff, takeSight } from './sights';

const marshdesk = demoBoard('marshdesk-2-b');
/** Its body bears more than is usual, so that there is room to go on. */
const board = {
  ...marshdesk,
  parts: marshdesk.parts.map((p) => (p.ref === 'U14' ? { ...p, bodyLimitC: 290 } : p)),
};
const goals = GOALS_BY_ALLOY.SAC305;
const found = openingPlan(board, NOMINAL_STATION, startingPlan('U14', 'SAC305', 4));
const { plan } = found;
const nudgeS = found.verdict.actAtS!;
const LIQUIDUS_C = 217;

test('a normal variable cut off at its mean is half a normal one (mean √(2/π), variance 1 − 2/π); mirrored alike', () => {
  expect(cutOff(0, true).mean).toBeCloseTo(Math.sqrt(2 / Math.PI), 6);
  expect(cutOff(0, false).mean).toBeCloseTo(-Math.sqrt(2 / Math.PI), 6);
  expect(cutOff(0, false).variance).toBeCloseTo(1 - 2 / Math.PI, 6);
  // What was expected anyway says next to nothing; the far tail lies just beyond its level.
  expect(cutOff(5, false).mean).toBeCloseTo(0, 4);
  expect(cutOff(-9, false).mean).toBeLessThan(-9);
  expect(cutOff(-9, false).mean).toBeGreaterThan(-9.2);
});

test('not swimming makes the station weaker and narrows it; swimming early makes it stronger', () => {
  const flown = flownUntil(plan, nudgeS);
  const before = knownBefore(NOMINAL_STATION);
  const stuck = takeSight(board, before, flown, { seen: 'stuck', heatS: nudgeS }).knowledge;
  const early = takeSight(board, before, flownUntil(plan, nudgeS - 12), {
    seen: 'swims',
    heatS: nudgeS - 12,
  }).knowledge;
  expect(stuck.station.multiplier).toBeLessThan(NOMINAL_STATION.multiplier);
  expect(stuck.copper).toBeGreaterThan(1);
  expect(early.station.multiplier).toBeGreaterThan(NOMINAL_STATION.multiplier);
  const variance = (covariance: readonly (readonly number[])[]): number => covariance[1][1];
  expect(variance(covarianceOf(stuck.station))).toBeLessThan(variance(covarianceOf(NOMINAL_STATION)));
});

describe('a board that holds more copper than its file says', () => {
  const truth = withCopper(board, 1.25);
  const coldestAt = (flown: typeof plan, atS: number): number =>
    simulateHeat(truth, NOMINAL_STATION, flownUntil(flown, atS), { frames: false })!
      .parts.find((p) => p.ref === 'U14')!
      .jointMinC.at(-1)!;
  const now = { board, station: NOMINAL_STATION, goals, plan };
  const atS = nudgeS - 5;

  test('told that nothing swims, the run goes on with what was flown, in a safe step, and melts by the next nudge', () => {
    expect(coldestAt(plan, atS)).toBeLessThan(LIQUIDUS_C);
    const said = correctRun(now, { seen: 'stuck', heatS: atS });
    expect(said.kind).toBe('goOn');
    const next = said as Extract<Correction, { kind: 'goOn' }>;
    expect(next.plan.steps.slice(0, next.step)).toEqual(flownUntil(plan, atS).steps);
    expect(next.setC - plan.steps[next.step - 1].airSetC!).toBeLessThanOrEqual(30);
    expect(next.message).toContain(`nudge again in ${next.nudgeInS} s`);
    expect(coldestAt(next.plan, atS + next.nudgeInS)).toBeGreaterThan(LIQUIDUS_C);
  });

  test('where a neighbour would pass its limit first, the air goes away, and the neighbour is named', () => {
    const { ref, peakC } = found.verdict.neighbours[0];
    const tight = { ...plan, limitsC: { [ref]: Math.round(peakC) - 8 } };
    const said = correctRun({ ...now, plan: tight }, { seen: 'stuck', heatS: atS });
    expect(said.kind).toBe('stop');
    expect(said.message).toContain(`${ref} joints may pass ${tight.limitsC[ref]} °C: cover it`);
  });

  test('what swims is lifted; what moves or browns is left alone', () => {
    const kinds = (['swims', 'neighbourMoves', 'browns'] as const).map((seen) => {
      const { kind, message } = correctRun(now, {
        seen,
        heatS: atS,
        ref: seen === 'neighbourMoves' ? 'U11' : undefined,
      });
      return [kind, message.split(':')[0]];
    });
    expect(kinds).toEqual([
      ['lift', 'U14 swims'],
      ['stop', 'U11 moves'],
      ['stop', 'U14 browns'],
    ]);
  });
});
