/** A finger on a part and a look at its joints: what they tell apart, and when they are worth it. */
import { demoBoard } from '../../../../demo/files';
import { updateBelief } from '../belief';
import { proposeTests } from '../next';
import { Predictor } from '../predictor';
import type { Fault } from '../faults';
import { OBSERVATION } from './observation';
import type { Measurement } from './registry';

const predictor = Predictor.of(demoBoard('heronlog-4-c'));
const NONE: ReadonlySet<string> = new Set();
const fault = (id: string): Fault => predictor.faults.find((f) => f.id === id)!;
const fails = (m: Measurement, id: string): number => {
  const prediction = predictor.predict(m, fault(id), NONE, NONE);
  return prediction.kind === 'verdict' ? prediction.failChance : NaN;
};
const press = (ref: string): Measurement => ({ kind: 'pressTest', ref });
const look = (ref: string): Measurement => ({ kind: 'jointLook', ref });

test('cracked joints answer to the finger seven times in ten, dead chips hardly ever', () => {
  expect(fails(press('U8'), 'U8/crack')).toBe(0.7);
  expect(fails(press('U8'), 'U8/dead')).toBe(OBSERVATION.pressTest.still);
  // Of another part it says nothing.
  expect(fails(press('U4'), 'U8/crack')).toBe(OBSERVATION.pressTest.still);
});

test('a dirty contact answers to the plug that is moved', () => {
  expect(fails(press('J1'), 'J1/dirty/CC1')).toBe(OBSERVATION.pressTest.dirty);
  expect(fails(press('J1'), 'J1/pin/CC1')).toBe(OBSERVATION.pressTest.still);
});

test('the eye sees solder between pads better than an open joint, and an open joint better than none', () => {
  const bridge = predictor.faults.find((f) => f.id.includes('/solder/'))!;
  expect(fails(look(bridge.ref), bridge.id)).toBe(OBSERVATION.jointLook.bridge);
  expect(fails(look('U4'), 'U4/joint/2')).toBe(OBSERVATION.jointLook.open);
  expect(fails(look('U4'), 'U4/dead')).toBe(OBSERVATION.jointLook.falseAlarm);
});

test('tables say the same as the plain prediction, for every fault', () => {
  const { case: faultCase, faults } = updateBelief(predictor, [], []);
  for (const m of [press('U8'), press('J1'), look('U4'), look('U5')]) {
    const table = faultCase.table(m, NONE, []);
    predictor.faults.forEach((f, i) => {
      expect(faults[i].id).toBe(f.id);
      const row = table.rows[table.rowOf[table.keyOf[i] * table.keys]];
      expect(row).toEqual(predictor.predict(m, f, NONE, NONE));
    });
  }
});

test('they are proposed where a contact is suspected, and not before', () => {
  const kinds = (history: Parameters<typeof updateBelief>[2], ...replaced: string[]): Set<string> => {
    const belief = updateBelief(predictor, [], history, {}, replaced);
    const tests = proposeTests(belief, { access: 'out', absent: NONE, replaced, taken: [] });
    return new Set(tests.map((t) => t.measurement.kind));
  };
  expect(kinds([]).has('jointLook')).toBe(false);
  expect(kinds([], 'U4').has('jointLook')).toBe(true);
  expect(kinds(['bend']).has('pressTest')).toBe(true);
});
