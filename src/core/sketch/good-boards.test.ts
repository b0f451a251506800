import { demoBoard } from '../../../demo/files';
import type { Board } from '../board';
import { Predictor, SOUND, type Measurement } from '../diagnose';
import { statsOf, type ReferenceTable } from '../reference';
import { FIRST_ANSWERS, firstBoard, withGoodBoards } from '.';

const NONE: ReadonlySet<string> = new Set();
const first = firstBoard('tern-1', { ...FIRST_ANSWERS, device: 'Tern 1' });
if (!first.ok) throw new Error(first.problems[0].message);
const sketch = first.value;
const READ: ReferenceTable = {
  'ohm:VIN': statsOf([41_000, 43_000]),
  'pin:J1:A5': statsOf([0.468]),
  'volts:VSYS': statsOf([8.4]),
  'ohm:NOWHERE': statsOf([5]),
};
const sound = (board: Board, m: Measurement): { mean: number; sd: number } => {
  const p = Predictor.of(board).predict(m, SOUND, NONE, NONE);
  if (p.kind !== 'values') throw new Error('expected values');
  return { mean: p.alternatives[0].means[0], sd: p.alternatives[0].sds[0] };
};

test('what good boards read takes the place of what was not known, and predictions narrow there', () => {
  const board = withGoodBoards(sketch, READ);
  for (const [m, mean] of [
    [{ kind: 'diodeDrop', net: 'CC1' }, 0.468],
    [{ kind: 'railVoltage', rail: 'VSYS' }, 8.4],
  ] as const) {
    expect(sound(board, m).mean).toBeCloseTo(mean, 2);
    expect(sound(board, m).sd).toBeLessThan(0.4 * sound(sketch, m).sd);
  }
  const vin = { kind: 'groundResistance', net: 'VIN' } as const;
  expect(sound(board, vin).sd).toBeLessThan(0.4 * sound(sketch, vin).sd);
  // The bus behind its open switch loads VIN with nothing: what is read is what was said.
  expect(10 ** sound(board, vin).mean / 42_000).toBeCloseTo(1, 1);
});

test('what a file knows stays as it is, and the same readings make the same board', () => {
  const heron = demoBoard('heronlog-4-c');
  const known = withGoodBoards(heron, {
    'ohm:VIN': statsOf([12]),
    'pin:J1:A5': statsOf([0.9]),
    'volts:VSYS': statsOf([1]),
  });
  expect(known).toBe(heron);
  expect(withGoodBoards(sketch, READ)).toBe(withGoodBoards(sketch, { ...READ }));
  expect(withGoodBoards(sketch, {})).toBe(sketch);
});
