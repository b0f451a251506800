import { DEMO_BOARDS, demoBoard } from '../../../demo/files';
import { partByRef } from '../board';
import { boardElements, elementsOf } from './elements';
import { singleFaults } from './faults/catalogue';
import { HISTORY_FACTORS, HISTORY_FLAGS, OUTSIDE, SHORT_OHM, faultsOfPart, historyFactor } from './faults';
import { updateBelief } from './belief';
import { classify } from './outcome-classes';
import { Predictor } from './predictor';
import type { Prediction } from './prediction';

const board = demoBoard('heronlog-4-c');
const modes = (ref: string): string[] =>
  faultsOfPart(board, partByRef(board, ref)!).map((f) => f.id.split('/').slice(1).join('/'));

describe('fault modes by kind of part', () => {
  test.each<[string, string[]]>([
    ['F1', ['open']],
    ['L1', ['open']],
    ['R1', ['open', 'drift']],
    ['FL1', ['open-a', 'open-b', 'bridge', 'short/DP_C', 'short/DN_C']],
    ['C14', ['short/AON33', 'leak/AON33']],
    ['C7', ['short']],
    ['D1', ['short/CC1', 'short/SBU1', 'leak/CC1', 'leak/SBU1']],
    ['Q1', ['open', 'short']],
    ['U9', ['image', 'dead', 'short/AON33']],
    ['Y1', ['dead']],
    ['J2', ['dead']],
  ])('%s', (ref, wanted) => {
    expect(modes(ref)).toEqual(wanted);
  });

  test('a port controller can be shorted at each supply, dead, or dead on one CC side', () => {
    expect(modes('U4')).toEqual(expect.arrayContaining(['short/AON33', 'short/PD18', 'dead', 'side-A', 'side-B']));
  });

  test('a port’s connector fails pin by pin where the pin matters', () => {
    expect(modes('J1')).toEqual(expect.arrayContaining(['pin/VBUS', 'pin/CC1', 'pin/CC2']));
  });

  test('a capacitor between two lines shorts them to each other, not to ground', () => {
    const [fault] = faultsOfPart(board, partByRef(board, 'C7')!);
    expect(fault.effects).toEqual([{ kind: 'bridge', netA: 'BST1', netB: 'SW1', ohm: SHORT_OHM, at: 'C7' }]);
  });
});

describe.each(DEMO_BOARDS)('all faults of %s', (id) => {
  const all = singleFaults(demoBoard(id));

  test('have names of their own, weights and words, with "outside" last', () => {
    expect(new Set(all.map((f) => f.id)).size).toBe(all.length);
    expect(all.every((f) => f.weight > 0 && f.label.length > 5)).toBe(true);
    expect(all[all.length - 1].id).toBe(OUTSIDE);
  });

  test('the prior is a distribution whatever the story', () => {
    for (const history of [[], ['liquid'], [...HISTORY_FLAGS]] as const) {
      const { prior, marginal } = updateBelief(Predictor.of(demoBoard(id)), [], history);
      expect(prior().reduce((s, v) => s + v, 0)).toBeCloseTo(1, 9);
      expect(Math.min(...prior())).toBeGreaterThanOrEqual(0);
      expect(Math.min(...marginal)).toBeGreaterThan(0);
    }
  });
});

test('stories multiply, and leave untouched what they do not speak of', () => {
  expect(historyFactor('portController', ['unknownCharger'])).toBe(HISTORY_FACTORS.unknownCharger.portController);
  expect(historyFactor('connector', ['liquid', 'fall'])).toBe(
    HISTORY_FACTORS.liquid.connector! * HISTORY_FACTORS.fall.connector!,
  );
  expect(historyFactor('mux', ['bend', 'fall'])).toBe(1);
});

describe('the network’s elements', () => {
  test('a filter has two lines, a fuse and a coil one, a capacitor none', () => {
    const ids = (ref: string): string[] => elementsOf(board, partByRef(board, ref)!).map((e) => e.id);
    expect(ids('FL1')).toEqual(['FL1:a', 'FL1:b']);
    expect(ids('F1')).toEqual(['F1']);
    expect(ids('L1')).toEqual(['L1']);
    expect(ids('C14')).toEqual([]);
    expect(ids('U4').every((e) => e.startsWith('U4~'))).toBe(true);
  });

  test('a part that is off takes its elements along', () => {
    const all = boardElements(board, new Set());
    const without = boardElements(board, new Set(['U4', 'FL1']));
    expect(all.length - without.length).toBe(elementsOf(board, partByRef(board, 'U4')!).length + 2);
    expect(without.some((e) => e.ref === 'U4')).toBe(false);
  });
});

describe('classes of readings that can be told apart', () => {
  const at = (mean: number, sd = 0.1): Prediction => ({
    kind: 'values',
    alternatives: [{ means: [mean], sds: [sd], weight: 1 }],
  });

  test('near values share a class, far ones do not', () => {
    const classes = classify([at(1), at(1.1), at(5)]);
    expect(classes).toHaveLength(2);
    expect([...classes[0].given]).toEqual([1, 1, 0]);
    expect([...classes[1].given]).toEqual([0, 0, 1]);
  });

  test('verdicts always make two classes', () => {
    const classes = classify([
      { kind: 'verdict', failChance: 0.9 },
      { kind: 'verdict', failChance: 0.2 },
    ]);
    expect(classes.map((c) => c.answer?.kind)).toEqual(['pass', 'fail']);
    expect([...classes[1].given]).toEqual([0.9, 0.2]);
  });

  test('alternatives of one fault are shared out by their weights', () => {
    const both: Prediction = {
      kind: 'values',
      alternatives: [
        { means: [1], sds: [0.1], weight: 0.3 },
        { means: [6], sds: [0.1], weight: 0.7 },
      ],
    };
    const classes = classify([both, at(1)]);
    expect(classes.map((c) => c.given[0])).toEqual([0.3, 0.7]);
  });
});
