import { demoBoard } from '../../../demo/files';
import type { EventBody, JobEvent } from '../job';
import { GOOD, jobsNear, ledgerOf, pointGroups, tally, toldAndWas, type LedgerLine, type PointReading } from '.';

const board = demoBoard('heronlog-4-c');
const log = (...bodies: readonly EventBody[]): JobEvent[] =>
  bodies.map((body, i) => ({
    ...{ seq: i + 1, bench: 'b', actor: i < 9 ? 'Mira' : 'Ansel', body },
    at: new Date(Date.UTC(2026, 10, 2, 8) + i * 6 * 60_000).toISOString(),
  }));
const ohm = (value: number): EventBody => ({
  kind: 'reading',
  measurement: { kind: 'groundResistance', net: board.rails[0].net },
  value: { kind: 'figure', value },
});
const NEW_U4: readonly EventBody[] = [
  { kind: 'decision', action: 'replace', ref: 'U4' },
  { kind: 'partOff', ref: 'U4' },
  { kind: 'partOn', ref: 'U4', fresh: true },
];

describe('the entries of a job', () => {
  test('a job that is open has none', () => {
    expect(ledgerOf(board, log(ohm(3), ...NEW_U4))).toEqual([]);
  });

  test('a repaired job names what was mended, and readings before the work and after it apart', () => {
    const [entry, ...more] = ledgerOf(
      board,
      log(ohm(3), ...NEW_U4, ohm(4700), { kind: 'close', outcome: 'repaired', cause: 'U4', price: 80 }),
    );
    expect(more).toEqual([]);
    expect(entry).toMatchObject({ outcome: 'repaired', causes: ['U4'], person: 'Mira', price: 80, isComeback: false });
    // Five gaps of six minutes.
    expect(entry.minutes).toBe(30);
    expect(entry.readings.map((r) => [r.value, r.phase])).toEqual([
      [3, 'fault'],
      [4700, 'good'],
    ]);
  });

  test('what came back has an entry for each time, and the first says for how long it was good', () => {
    const events = log(
      ohm(3),
      ...NEW_U4,
      { kind: 'close', outcome: 'repaired', cause: 'U4' },
      { kind: 'reopen', symptom: 'again' },
      ohm(2),
      { kind: 'close', outcome: 'returned', cause: 'not found' },
    );
    const [first, second] = ledgerOf(board, events);
    expect(first.daysGood).toBeCloseTo(6 / 60 / 24, 9);
    expect(second).toMatchObject({ isComeback: true, outcome: 'returned', causes: [], daysGood: undefined });
    expect(second.readings.map((r) => r.value)).toEqual([2]);
  });

  test('it names the station of the plan that was kept last, and none where no plan was', () => {
    const plan = (stationId: string): EventBody => ({ kind: 'heatPlan', stationId }) as EventBody;
    const close: EventBody = { kind: 'close', outcome: 'stopped', cause: '' };
    const stations = (...bodies: EventBody[]): unknown[] => ledgerOf(board, log(...bodies)).map((e) => e.station);
    expect(stations(ohm(3), close)).toEqual([undefined]);
    expect(stations(plan('bench-1'), plan('bench-2'), close)).toEqual(['bench-2']);
    // What came back is heated anew, or not at all.
    expect(stations(plan('bench-1'), close, { kind: 'reopen', symptom: 'again' }, close)).toEqual([
      'bench-1',
      undefined,
    ]);
  });

  test('a closing that was undone is none', () => {
    const events = log(ohm(3), { kind: 'close', outcome: 'returned', cause: 'x' }, { kind: 'undo', seq: 2 });
    expect(ledgerOf(board, events)).toEqual([]);
  });
});

const line = (over: Partial<LedgerLine>): LedgerLine => ({
  ...{ board: 'a', month: '2026-10', outcome: 'repaired', isComeback: false, cause: 'U4', person: 'Mira' },
  ...{ minutes: 60, closedAt: '2026-10-05T10:00:00.000Z' },
  ...over,
});

describe('tables', () => {
  const lines = [
    ...Array.from({ length: 18 }, () => line({ price: 90 })),
    line({ outcome: 'returned' }),
    line({ outcome: 'returned', daysGood: undefined }),
    line({ board: 'b', daysGood: 12, promisedAt: '2026-10-05T09:00:00.000Z' }),
  ];

  test('shares with the range that so few jobs leave: Jeffreys’ interval of 18 in 20', () => {
    const [a, b] = tally(lines, 'board');
    // scipy.stats.beta.ppf([.025, .975], 18.5, 2.5) = 0.7161, 0.9786 (from memory of the method; checked by quadrature of the density).
    expect([a.jobs, a.repaired, a.isThin]).toEqual([20, 18, false]);
    expect(massBetween(18.5, 2.5, a.cure.low, a.cure.high)).toBeCloseTo(0.95, 4);
    expect([b.jobs, b.cameBack, b.promised, b.kept, b.isThin]).toEqual([1, 1, 1, 0, true]);
  });

  test('money by the hour counts those with a price alone', () => {
    expect(tally(lines, 'board')[0]).toMatchObject({ money: 18 * 90, perHour: 90 });
  });

  test('what was told against what was', () => {
    const told = [
      ...Array.from({ length: 9 }, () => line({ successTold: 0.9 })),
      line({ successTold: 0.9, outcome: 'returned' }),
    ];
    expect(toldAndWas(told)).toMatchObject({ quotes: 10, toldChance: expect.closeTo(0.9, 9), promised: 0 });
    expect(toldAndWas([line({})])).toBeUndefined();
  });
});

/** The mass of a Beta density between two shares, by Simpson's rule: not by the function that gives the bounds. */
function massBetween(a: number, b: number, low: number, high: number): number {
  const density = (x: number): number => x ** (a - 1) * (1 - x) ** (b - 1);
  const simpson = (from: number, to: number): number => {
    const n = 4000;
    const h = (to - from) / n;
    let sum = density(from + 1e-12) + density(to - 1e-12);
    for (let i = 1; i < n; i++) sum += density(from + i * h) * (i % 2 === 1 ? 4 : 2);
    return (sum * h) / 3;
  };
  return simpson(low, high) / simpson(0, 1);
}

describe('a point', () => {
  const at = (job: number, value: number, cause: string, phase: 'fault' | 'good' = 'fault'): PointReading => ({
    ...{ job, value, cause, phase, words: String(value) },
  });
  const readings = [
    ...Array.from({ length: 12 }, (_, k) => at(k, 0.14, 'U4')),
    at(20, 0.15, 'C17'),
    at(21, 0.13, 'C17'),
    at(21, 0.13, 'C17'),
    at(22, 0.6, 'F1'),
    at(0, 0.6, 'U4', 'good'),
    at(30, Infinity, ''),
  ];

  test('0.14 A here: 12 of 14 were U4', () => {
    expect(jobsNear(readings, 0.14)).toEqual({
      jobs: 14,
      causes: [
        ['U4', 12],
        ['C17', 2],
      ],
    });
    expect(jobsNear(readings, Infinity)).toEqual({ jobs: 1, causes: [['not mended', 1]] });
  });

  test('good boards stand first, then the commonest cause', () => {
    expect(pointGroups(readings).map((g) => [g.name, g.count])).toEqual([
      [GOOD, 1],
      ['U4', 12],
      ['C17', 3],
      ['F1', 1],
      ['not mended', 1],
    ]);
  });
});
