import { demoBoard } from '../../../demo/files';
import { seededRandom, type Random } from '../math';
import {
  CHARGERS,
  concludeOutside,
  expectDraw,
  LineCost,
  nameFor,
  nameSegments,
  PACK_STATES,
  penaltyOf,
  segment,
  simulateTrace,
  typedRecord,
  type ExpectedDraw,
  type Pattern,
  type SegmentName,
  type WantedSegment,
} from '.';

const heron = demoBoard('heronlog-4-c').ports[0];
const marsh = demoBoard('marshdesk-2-b').ports[0];
const large = CHARGERS.find((c) => c.name === '65 W')!;
const small = CHARGERS[0];
const expected = expectDraw(heron, large, 'partly');

describe('cutting a trace', () => {
  /** The plain recursion over all cuts, without pruning. */
  function exhaustive(cost: LineCost, n: number, penalty: number): number {
    const best = [-penalty];
    for (let to = 1; to <= n; to++) {
      best[to] = Infinity;
      for (let from = 0; from <= to - 3; from++)
        best[to] = Math.min(best[to], best[from] + cost.cost(from, to) + penalty);
    }
    return best[n];
  }

  test('the pruned search costs exactly what exhaustive dynamic programming finds, on 60 short traces', () => {
    const random = seededRandom(4);
    for (let i = 0; i < 60; i++) {
      const pieces = Array.from({ length: 1 + Math.floor(3 * random()) }, (): WantedSegment => ({
        name: 'hold',
        durationS: 0.6 + 2 * random(),
        volts: 5 + 15 * random(),
        amps: [random(), random()],
      }));
      const trace = simulateTrace(pieces, random);
      const n = trace.timesS.length;
      expect(segment(trace).cost).toBeCloseTo(exhaustive(new LineCost(trace), n, penaltyOf(n)), 6);
    }
  });

  test('the running sums give the residuals of an ordinary least-squares line', () => {
    const random = seededRandom(6);
    const noisy = simulateTrace([{ name: 'ramp', durationS: 3, volts: 15, amps: [0.1, 0.7] }], random);
    const third = (v: number): number => v / 3;
    const trace = { ...noisy, volts: noisy.volts.map(third), amps: noisy.amps.map(third) };
    const direct = (y: Float64Array): number => {
      const n = y.length;
      const t = trace.timesS;
      const [mt, my] = [t, y].map((v) => v.reduce((s, x) => s + x, 0) / n);
      const slope = y.reduce((s, v, i) => s + (t[i] - mt) * (v - my), 0) / t.reduce((s, v) => s + (v - mt) ** 2, 0);
      return y.reduce((s, v, i) => s + (v - my - slope * (t[i] - mt)) ** 2, 0);
    };
    const cost = new LineCost(trace);
    // A third of the usual noise lies below the floors, so the floors are the weights: 0.02 V and 0.008 A.
    expect(cost.cost(0, 30)).toBeCloseTo(direct(trace.volts) / 0.02 ** 2 + direct(trace.amps) / 0.008 ** 2, 6);
    // Halves of a straight line cost together no more than the whole.
    expect(cost.cost(0, 15) + cost.cost(15, 30)).toBeLessThanOrEqual(cost.cost(0, 30) + 1e-9);
  });

  test('a steady trace is one stretch, a step is two, cut at the step', () => {
    const random = seededRandom(9);
    const steady = simulateTrace([{ name: 'hold', durationS: 60, volts: 15, amps: [0.6, 0.6] }], random);
    expect(segment(steady).stretches).toHaveLength(1);
    const step = simulateTrace(
      [
        { name: 'noTalk', durationS: 8, volts: 5, amps: [0.01, 0.01] },
        { name: 'hold', durationS: 12, volts: 15, amps: [0.6, 0.6] },
      ],
      random,
    );
    expect(segment(step).stretches.map((s) => s.from)).toEqual([0, 80]);
  });
});

/** Ways a plug-in can go, drawn at random; each is a course of segments that a device really shows. */
function course(random: Random): WantedSegment[] {
  const s = (from: number, to: number): number => from + (to - from) * random();
  const five: WantedSegment = { name: 'noTalk', durationS: s(2, 6), volts: s(4.9, 5.1), amps: [0.01, 0.01] };
  const idle: WantedSegment = { name: 'idle', durationS: s(4, 10), volts: s(14.8, 15.2), amps: [0.01, 0.01] };
  const holdA = s(0.45, 0.75);
  const kinds: (() => WantedSegment[])[] = [
    () => [{ ...five, durationS: s(20, 60) }],
    () => [{ name: 'nothing', durationS: s(20, 60), volts: 0, amps: [0, 0] }],
    () => [
      five,
      idle,
      { name: 'ramp', durationS: s(8, 20), volts: idle.volts, amps: [0.05, holdA] },
      { name: 'hold', durationS: s(15, 40), volts: idle.volts, amps: [holdA, holdA] },
    ],
    () => [five, { name: 'hold', durationS: s(20, 40), volts: idle.volts, amps: [holdA, holdA] }],
    () => [five, idle, { name: 'preCharge', durationS: s(20, 60), volts: idle.volts, amps: [0.1, 0.1] }],
    () => [five, { name: 'fast', durationS: s(20, 40), volts: idle.volts, amps: [1.2, 1.2] }],
    () => [{ name: 'earlyLoad', durationS: s(20, 40), volts: s(4.9, 5.1), amps: [0.5, 0.5] }],
    () => [{ name: 'swing', durationS: s(20, 40), volts: 5, amps: [0.3, 0.3], periodS: s(1.5, 4) }],
    () => [five, { ...idle, durationS: s(20, 40) }],
  ];
  return kinds[Math.floor(random() * kinds.length)]();
}

test('200 generated traces: 97 % of segments or more named right, boundaries within 0.5 s at 10 samples a second', () => {
  const random = seededRandom(2026);
  let right = 0;
  let total = 0;
  let boundariesRight = 0;
  let boundaries = 0;
  for (let i = 0; i < 200; i++) {
    const wanted = course(random);
    const found = nameSegments(simulateTrace(wanted, random), expected);
    let startS = 0;
    wanted.forEach((w, k) => {
      total++;
      const middle = startS + w.durationS / 2;
      const there = found.find((f) => f.startS <= middle && f.endS >= middle);
      if (there?.name === w.name) right++;
      if (k > 0) {
        boundaries++;
        if (found.some((f) => Math.abs(f.startS - startS) <= 0.5)) boundariesRight++;
      }
      startS += Math.round(w.durationS * 10) / 10;
    });
  }
  expect(total).toBeGreaterThan(300);
  expect(right / total).toBeGreaterThanOrEqual(0.97);
  expect(boundariesRight / boundaries).toBeGreaterThanOrEqual(0.97);
});

test('a pattern that repeats carries its period', () => {
  const random = seededRandom(3);
  const swing = nameSegments(
    simulateTrace([{ name: 'swing', durationS: 30, volts: 5, amps: [0.3, 0.3], periodS: 2.5 }], random),
    expected,
  );
  expect(swing.map((s) => s.name)).toEqual(['swing']);
  expect(swing[0].periodS).toBeCloseTo(2.5, 0);
  const restarts = nameSegments(
    simulateTrace([{ name: 'restart', durationS: 900, volts: 15, amps: [0.5, 0.5], periodS: 180 }], random, 1),
    expected,
  );
  expect(restarts.map((s) => s.name)).toContain('restart');
  expect(restarts.find((s) => s.name === 'restart')!.periodS!).toBeGreaterThan(150);
});

describe('every row of the outside table, from a trace (common practice, no published source)', () => {
  const random = seededRandom(12);
  const way = (...segments: WantedSegment[]) => ({ segments: nameSegments(simulateTrace(segments, random), expected) });
  const piece = (
    name: SegmentName,
    volts: number,
    from: number,
    to = from,
    more: Partial<WantedSegment> = {},
  ): WantedSegment => ({ name, durationS: 30, volts, amps: [from, to], ...more });
  const silent = () => way(piece('noTalk', 5.02, 0.01));
  const dead = () => way(piece('nothing', 0, 0));
  const healthy = () =>
    way(piece('noTalk', 5, 0.01, 0.01, { durationS: 4 }), piece('ramp', 15, 0.05, 0.6), piece('hold', 15, 0.6));

  test.each<[string, ReturnType<typeof way>, ReturnType<typeof way>, 'partly' | 'out', Pattern, string[]]>([
    ['stays at 5 V, next to no current', silent(), silent(), 'partly', 'noConversation', ['U4', 'U9', 'AON33', 'J1']],
    ['nothing at all, both ways round', dead(), dead(), 'partly', 'nothingAtAll', ['fuse', 'J1', 'U4']],
    ['good one way, 5 V the other', healthy(), silent(), 'partly', 'oneSide', ['D2']],
    ['nothing one way, good the other', dead(), healthy(), 'partly', 'oneSide', ['D1']],
    [
      'full level, no current, pack unplugged',
      way(piece('idle', 15, 0.01)),
      way(piece('idle', 15, 0.02)),
      'out',
      'idleWithoutPack',
      [],
    ],
    ['full level, climbing, then holding', healthy(), healthy(), 'partly', 'charging', []],
    [
      'about 0.1 A that stays',
      way(piece('preCharge', 15, 0.1)),
      way(piece('preCharge', 15, 0.1)),
      'partly',
      'deepFlat',
      [],
    ],
    [
      'half an ampere at once',
      way(piece('earlyLoad', 5, 0.5)),
      way(piece('earlyLoad', 5, 0.5)),
      'partly',
      'processorSide',
      ['processor'],
    ],
    [
      'swinging between 0 and 5 V',
      way(piece('swing', 5, 0.3, 0.3, { periodS: 2 })),
      silent(),
      'partly',
      'cannotSettle',
      ['U9'],
    ],
  ])('%s', (_, a, b, pack, pattern, implicates) => {
    const conclusion = concludeOutside(heron, a, b, pack);
    expect(conclusion.pattern).toBe(pattern);
    for (const ref of implicates) expect(conclusion.implicates).toContain(ref);
    expect(conclusion.reasons.length).toBe(2);
  });

  test('restarts every few minutes', () => {
    const slow = {
      segments: nameSegments(
        simulateTrace([{ name: 'restart', durationS: 1200, volts: 15, amps: [0.5, 0.5], periodS: 200 }], random, 1),
        expected,
      ),
    };
    expect(concludeOutside(heron, slow, undefined, 'partly').pattern).toBe('missingSensor');
  });
});

describe('typed readings work the same way (facts of the trade: common practice)', () => {
  const typed = (volts: number, amps: number, draw: ExpectedDraw = expected) => typedRecord(volts, amps, draw);

  test.each<[number, number, SegmentName]>([
    [15, 0.4, 'hold'],
    [15, 0.8, 'hold'],
    [15, 1.2, 'fast'],
    [15, 0.1, 'preCharge'],
    [5, 0.01, 'noTalk'],
    [5, 0.5, 'earlyLoad'],
    [0, 0, 'nothing'],
    [15, 0.01, 'idle'],
  ])('%p V and %p A on a 15 V device is %p', (volts, amps, name) => {
    expect(typed(volts, amps).segments[0].name).toBe(name);
  });

  test('5 V and 0.01 A both ways: the controller is not talking', () => {
    expect(concludeOutside(heron, typed(5, 0.01), typed(5, 0.01), 'partly').pattern).toBe('noConversation');
  });

  test('about 0.23 A at 20 V without a pack is normal on a 20 V device', () => {
    const draw = expectDraw(marsh, large, 'out');
    expect(draw.amps[0]).toBeLessThanOrEqual(0.23);
    expect(draw.amps[1]).toBeGreaterThanOrEqual(0.23);
  });

  test('0.93 A from a small charger and 1.9 A from a large one are both healthy at 5 V', () => {
    const at = (charger: (typeof CHARGERS)[number]) => expectDraw(marsh, charger, 'partly');
    const inside = (amps: number, [low, high]: readonly [number, number]): boolean => amps >= low && amps <= high;
    expect(inside(0.93, at(small).amps)).toBe(true);
    expect(inside(1.9, at(CHARGERS[1]).amps)).toBe(true);
    expect(nameFor({ startS: 0, endS: 60, volts: 5, amps: 0.93, rise: 0 }, at(small))).toBe('hold');
  });
});

describe('the expected window', () => {
  test('follows the charger’s own offer: a small charger can never show what a large one does', () => {
    expect(expectDraw(heron, small, 'partly').volts).toBe(5);
    expect(expectDraw(heron, large, 'partly').volts).toBe(15);
    expect(expectDraw(heron, small, 'partly').amps[1]).toBeLessThanOrEqual(1);
  });

  test('never asks for more than the charger offers, in any state of the pack', () => {
    for (const charger of CHARGERS) {
      for (const pack of PACK_STATES) {
        for (const port of [heron, marsh]) {
          const { volts, amps } = expectDraw(port, charger, pack);
          const offer = charger.offers.find((o) => o.volts === volts)!;
          expect(amps[0]).toBeLessThanOrEqual(amps[1]);
          expect(amps[1]).toBeLessThanOrEqual(offer.amps);
          expect(volts).toBeLessThanOrEqual(port.designV + 0.5);
        }
      }
    }
  });
});
