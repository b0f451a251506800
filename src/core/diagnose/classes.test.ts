/** Faults taken together, and the probabilities that follow, against counting every fault. */
import { demoBoard } from '../../../demo/files';
import { groupFaults, tellApart, MOST_CLASSES } from './classes';
import type { Fault } from './faults';
import { TestTable, assignRows, type OutcomePartition } from './outcome-partition';
import { HypothesisSpace } from './space';

const fault = (id: string, ref: string, weight: number): Fault => ({
  ...{ id, ref, label: id, weight },
  effects: [{ kind: 'dead', ref }],
  mendedBy: { kind: 'part', ref },
});
const many = Array.from({ length: MOST_CLASSES + 80 }, (_, i) => fault(`f${i}`, `R${i}`, 1 + (i % 3)));
const byThree = Uint16Array.from(many, (_, i) => Math.floor(i / 3));
const byFive = Uint16Array.from(many, (_, i) => Math.floor(i / 5));

describe('grouping', () => {
  test('faults of one key in every test are one class', () => {
    const { of, members } = groupFaults(many, [byThree, byFive], new Set());
    // Compared by hand: an expectation for each of a hundred thousand pairs took seven seconds (measured).
    const wrong = many.flatMap((_, i) =>
      [...many.keys()].slice(0, i).filter((k) => {
        const alike = byThree[i] === byThree[k] && byFive[i] === byFive[k];
        return (of[i] === of[k]) !== alike;
      }),
    );
    expect(wrong).toEqual([]);
    expect(members.flat().sort((a, b) => a - b)).toEqual([...many.keys()]);
  });

  test('what was worked on stands alone, and a short list is left as it is', () => {
    const { of, members } = groupFaults(many, [byThree], new Set(['R1']));
    expect(members[of[1]]).toEqual([1]);
    expect(members[of[0]]).toEqual([0, 2]);
    expect(groupFaults(many.slice(0, 9), [byThree.slice(0, 9)], new Set()).members).toHaveLength(9);
  });

  test('the likeliest classes are told apart, the leading one whatever room there is', () => {
    const classes = groupFaults(many, [byFive], new Set());
    const chance = classes.members.map((_, c) => (c === 7 ? 0.5 : c === 9 ? 0.2 : 0.0001));
    const { members } = tellApart(classes, chance, 0.01);
    expect(members).toHaveLength(classes.members.length + 8);
    for (const c of [7, 9]) for (const f of classes.members[c]) expect(members).toContainEqual([f]);
    expect(tellApart(classes, chance, 0.9)).toEqual(classes);
  });
});

describe('a space of classes', () => {
  const list = [
    fault('a', 'U1', 3),
    fault('b', 'U2', 1),
    fault('c', 'U2', 2),
    fault('d', 'U3', 2),
    fault('e', 'U4', 4),
  ];
  list.push({ ...fault('outside', '', 3), effects: [] });
  const board = demoBoard('heronlog-4-c');
  const alone = new HypothesisSpace(list, { of: Uint16Array.from(list.keys()), members: list.map((_, i) => [i]) });
  const together = new HypothesisSpace(list, {
    of: Uint16Array.from([0, 0, 0, 1, 2, 3]),
    members: [[0, 1, 2], [3], [4], [5]],
  });
  // One test sees the three of one class alike, and d.
  const partition: OutcomePartition = {
    keyOf: Uint16Array.from([1, 1, 1, 2, 0, 0]),
    keys: 3,
    rowName: (x, y) => (x > y ? `${x} ${y}` : `${y} ${x}`),
    predict: (...keys) => ({
      kind: 'verdict',
      failChance: Math.min(0.95, 0.1 + 0.3 * keys.reduce((s, k) => s + k, 0)),
    }),
  };
  const table = new TestTable(partition, assignRows(partition));
  const likelihood = table.rows.map((row) => (row.kind === 'verdict' ? row.failChance : 0));

  test('two of one class can be there at once, unless they are of one part', () => {
    const { p } = together.prior(board, [], {});
    const single = alone.prior(board, [], {});
    const pairs = new Map<string, number>();
    alone.forEach((h, i, j) => {
      if (j >= 0)
        pairs.set(
          [together.classes.of[i], together.classes.of[j]].sort().join(),
          single.p[h] + (pairs.get([together.classes.of[i], together.classes.of[j]].sort().join()) ?? 0),
        );
    });
    together.forEach((h, i, j) => {
      if (j >= 0)
        expect(p[h]).toBeCloseTo(pairs.get([together.classes.of[i], together.classes.of[j]].sort().join())!, 12);
    });
  });

  test('counted by classes and spread out again, every hypothesis is as likely as counted alone', () => {
    const prior = together.prior(board, [], {});
    const wide = Float64Array.from(prior.p);
    together.update(wide, table, likelihood);
    const narrow = Float64Array.from(alone.prior(board, [], {}).p);
    alone.update(narrow, table, likelihood);
    const spread = alone.spreadFrom(together, wide, prior.share);
    narrow.forEach((v, h) => expect(spread[h]).toBeCloseTo(v, 12));
    expect([...alone.marginal(spread, new Float64Array(6).fill(1))].map((v) => v.toFixed(9))).toEqual(
      [...together.marginal(wide, prior.within)].map((v) => v.toFixed(9)),
    );
  });
});
