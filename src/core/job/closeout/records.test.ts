import { demoBoard } from '../../../../demo/files';
import { seededRandom } from '../../math';
import { Predictor, pickWeighted, updateBelief } from '../../diagnose';
import { PART_KINDS, partByRef, type PartKind } from '../../board';
import { kindsAtFault, learnedRecords } from './records';
import { BenchPlay } from '../tests/bench-play';

const heron = demoBoard('heronlog-4-c');
const kinds = (...list: PartKind[]) => ({ board: heron, kinds: new Set(list) });
const factorOf = (list: ReturnType<typeof learnedRecords>, kind: PartKind): number =>
  list.find((r) => r.kind === kind)!.factor;

test('no jobs, no change; few jobs move little, many move far', () => {
  expect(learnedRecords([]).every((r) => r.factor === 1)).toBe(true);
  const few = factorOf(learnedRecords(Array(3).fill(kinds('fuse'))), 'fuse');
  const many = factorOf(learnedRecords(Array(300).fill(kinds('fuse'))), 'fuse');
  expect(few).toBeGreaterThan(1);
  expect(many).toBeGreaterThan(3 * few);
  expect(factorOf(learnedRecords(Array(300).fill(kinds('fuse'))), 'portController')).toBeLessThan(0.3);
});

test('jobs drawn from the defaults are seen as often as expected', () => {
  const { space, faults, p } = updateBelief(Predictor.of(heron), [], []);
  const members: number[][] = [];
  space.forEach((_, i, j) => members.push(j < 0 ? [i] : [i, j]));
  const random = seededRandom(4);
  const jobs = Array.from({ length: 3000 }, () => {
    const parts = members[pickWeighted(p, random)].map((f) => partByRef(heron, faults[f].ref)?.kind);
    return kinds(...parts.filter((kind) => kind !== undefined));
  });
  // Counts are Poisson about what is expected: four standard deviations hold all of them but once in a thousand runs.
  for (const r of learnedRecords(jobs)) expect(Math.abs(r.seen - r.expected)).toBeLessThan(4 * Math.sqrt(r.expected));
  expect(learnedRecords(jobs).map((r) => r.kind)).toEqual([...PART_KINDS]);
});

test('a repaired job names what was replaced, an open or stopped one nothing', () => {
  const bench = new BenchPlay(heron).type('off u4', 'on u4 new', 'off c14', 'on c14 same');
  expect([...kindsAtFault(heron, bench.state)]).toEqual([]);
  bench.keep({ kind: 'close', outcome: 'repaired', cause: '' });
  expect([...kindsAtFault(heron, bench.state)]).toEqual(['portController']);
});
