import { parseBoard, type Board } from '../board';
import { normalDraw, seededRandom } from '../math';
import { ResistanceNetwork } from './network';
import type { Element } from './elements';

/** VIN and VSYS behind a coil-like path, three loads that are not known, one that is. */
const elements = (ohms: readonly number[], within: readonly number[]): Element[] => [
  ...ohms.map((ohm, i): Element => ({
    id: `U${i}~n`,
    ref: `U${i}`,
    a: i < 2 ? 'VIN' : 'VSYS',
    b: 'GND',
    ohm,
    within: within[i],
  })),
  { id: 'R1', ref: 'R1', a: 'VIN', b: 'VSYS', ohm: 3000 },
  { id: 'R2', ref: 'R2', a: 'VSYS', b: 'GND', ohm: 20_000 },
];
const network = (list: Element[]): ResistanceNetwork => new ResistanceNetwork(['GND', 'VIN', 'VSYS'], 'GND', list);

/**
 * Against the plain way: loads drawn from their distributions, the network solved anew for each, the spread of the logarithm of
 * what is read. Four standard errors of a spread from 4000 draws are 4.5 %; beyond small doubts the sensitivity is only the right size.
 */
test.each([
  ['small doubts', 1.2, 0.06],
  ['a factor of two', 2, 0.12],
  ['a factor of ten', 10, 0.35],
])('the doubt of a resistance under %s is that of drawn loads', (_words, factor, share) => {
  const ohms = [12_000, 47_000, 9000];
  const within = [factor, factor, factor];
  const random = seededRandom(31);
  const sds = Math.log10(factor) / 1.96;
  const drawn = Array.from({ length: 4000 }, () => {
    const own = ohms.map((ohm) => ohm * 10 ** (sds * normalDraw(random)));
    return Math.log10(network(elements(own, within)).resistanceOhm('VIN', 'GND'));
  });
  const mean = drawn.reduce((s, x) => s + x, 0) / drawn.length;
  const spread = Math.sqrt(drawn.reduce((s, x) => s + (x - mean) ** 2, 0) / (drawn.length - 1));
  const { whole, widest } = network(elements(ohms, within)).doubtDecades('VIN', 'GND');
  expect(Math.abs(whole / spread - 1)).toBeLessThan(share);
  expect(widest).toBeCloseTo(sds, 12);
});

test('what is known has no doubt', () => {
  expect(network(elements([12_000, 47_000, 9000], [1, 1, 1])).doubtDecades('VIN', 'GND').whole).toBe(0);
});

describe('a board file that says how well it knows', () => {
  const board = (change: (b: Board) => unknown): unknown => {
    const plain = {
      format: 'unisolda-board/2',
      ...{ id: 'tern', device: 'Tern', name: 'board', revision: 'A', thicknessMm: 1 },
      outlineMm: [
        [0, 0],
        [20, 0],
        [20, 20],
      ],
      layers: [{ name: 'L1', copperUm: 18, coverage: 0.5 }],
      packages: { P: { bodyMm: [1, 1], heightMm: 1, lands: { kind: 'two', pitchMm: 1, padMm: [0.4, 0.4] } } },
      nets: { GND: { role: 'ground' }, VIN: { role: 'power' } },
      parts: [
        { ref: 'J1', kind: 'connector', what: 'port', package: 'P', xMm: 10, yMm: 5, pins: { 1: 'VIN', 2: 'GND' } },
      ],
      points: [],
      ports: [
        {
          ...{ id: 'J1', designV: 5, healthyA: [0, 1], controller: 'J1', controllerRails: ['VIN'], vbusRail: 'VIN' },
          sides: ['A', 'B'].map((side) => ({ side, ccNet: 'VIN', path: ['J1'] })),
        },
      ],
      rails: [{ id: 'VIN', net: 'VIN', expect: { kind: 'bus' }, feeds: [{ from: null }] }],
      functions: [],
    };
    return change(plain as unknown as Board);
  };

  test.each([
    [
      'a factor without its load',
      (b: Board) => ({ ...b, parts: b.parts.map((p) => ({ ...p, loadsWithin: { VIN: 3 } })) }),
      'It gives a factor for its load on VIN, but no load.',
    ],
    [
      'a reach without its drop',
      (b: Board) => ({ ...b, nets: { ...b.nets, VIN: { role: 'power', diodeWithinV: 0.1 } } }),
      'It says how far its drop may lie off, but gives no drop.',
    ],
  ])('is refused for %s', (_words, change, message) => {
    const parsed = parseBoard(board(change as (b: Board) => unknown));
    expect(!parsed.ok && parsed.problems[0].message).toBe(message);
    expect(parseBoard(board((b) => b)).ok).toBe(true);
  });
});
