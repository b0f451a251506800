import { demoBoard } from '../../../../demo/files';
import { statsOf } from '../../reference';
import { compareWithReferences } from './comparison';
import { BenchPlay } from '../tests/bench-play';

const heron = demoBoard('heronlog-4-c');
const references = {
  'ohm:AON33': statsOf([6500, 6600, 6700]),
  'volts:PD18': statsOf([1.79, 1.8, 1.81]),
  'pin:J1:A5': statsOf([0.26, 0.262]),
  'ohm:VIN': statsOf([90_000]),
};
const compared = (...lines: string[]) =>
  compareWithReferences(heron, new BenchPlay(heron).type('look j1 good', 'pack out', ...lines).state, references);

test('what lies outside comes first, then inside, then what is not read; one board alone is no reference', () => {
  const list = compared('out', 'tp7 1.6 ohm', 'pd18 1.8 v');
  expect(list.map((c) => [c.id, c.within])).toEqual([
    ['ohm:AON33', false],
    ['volts:PD18', true],
    ['pin:J1:A5', undefined],
  ]);
});

// Mean 6600, s 100, n 3: t(0.975, 2) = 4.303 (Student's t, published tables), 6600 ± 4.303·100·√(4/3).
test('the interval is the prediction interval of the good boards', () => {
  const half = 4.303 * 100 * Math.sqrt(4 / 3);
  const [first] = compared();
  expect(compared().find((c) => c.id === 'ohm:AON33')!.interval).toBe(
    `${((6600 - half) / 1000).toFixed(2)} kΩ to ${((6600 + half) / 1000).toFixed(2)} kΩ`,
  );
  expect(first.boards).toBeGreaterThan(1);
});

test('readings with a part off the board are not held against whole boards', () => {
  expect(compared('out', 'off u4', 'tp7 9 kohm').find((c) => c.id === 'ohm:AON33')!.within).toBeUndefined();
});
