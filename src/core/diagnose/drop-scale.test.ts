/** Drops of one session that all differ by a factor: the board's temperature, another meter. */
import { demoBoard } from '../../../demo/files';
import { seededRandom } from '../math';
import { suspects, updateBelief } from './belief';
import { dropScaleOf, scaled } from './drop-scale';
import { SOUND } from './faults';
import { boardMeasurements } from './measurement';
import { idealReading } from './policy';
import type { Reading } from './reading';
import { Predictor } from './predictor';

const predictor = Predictor.of(demoBoard('heronlog-4-c'));
const drops = boardMeasurements(predictor.board)
  .filter((m) => m.kind === 'contactDrop')
  .map((m) => idealReading(predictor, m, SOUND));
const times = (factor: number, list: readonly Reading[] = drops): Reading[] =>
  list.map((r) => (r.value.kind === 'figure' ? { ...r, value: { kind: 'figure', value: factor * r.value.value } } : r));

test.each([0.94, 1, 1.05])('a session whose drops all read %p times as high has that scale', (factor) => {
  expect(dropScaleOf(predictor, times(factor))).toBeCloseTo(factor, 9);
});

test('a few drops say nothing, and one that is far off does not pull the others', () => {
  expect(dropScaleOf(predictor, times(1.05, drops.slice(0, 3)))).toBe(1);
  const off: Reading = { ...drops[0], value: { kind: 'figure', value: 0.02 } };
  expect(dropScaleOf(predictor, [off, ...times(1.05, drops.slice(1))])).toBeCloseTo(1.05, 9);
});

test('only drops are brought to the scale of the board file', () => {
  const ohm: Reading = { measurement: { kind: 'groundResistance', net: 'VIN' }, value: { kind: 'figure', value: 100 } };
  expect(scaled(ohm, 1.05)).toEqual(ohm.value);
  expect(scaled(times(1.05)[0], 1.05)).toEqual({
    kind: 'figure',
    value: expect.closeTo((drops[0].value as { value: number }).value, 9),
  });
});

test('a warm board with good drops is as good as a cold one', () => {
  const random = seededRandom(3);
  const noisy = (factor: number): Reading[] =>
    times(factor).map((r) =>
      r.value.kind === 'figure'
        ? { ...r, value: { kind: 'figure', value: r.value.value + 0.004 * (random() - 0.5) } }
        : r,
    );
  const top = (readings: readonly Reading[]): number => suspects(updateBelief(predictor, readings, []))[0].p;
  expect(Math.abs(top(noisy(1.05)) - top(noisy(1)))).toBeLessThan(0.05);
});
