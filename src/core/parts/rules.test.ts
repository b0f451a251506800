/** The table of rules as data: complete, sourced, and filled with what was compared. */
import { DEMO_BOARDS, demoBoard, demoPartTypes } from '../../../demo/files';
import { resistorsBetween } from '../units';
import { isChangeable, judgeFit } from './fit';
import type { PartType } from './profile';
import type { Candidate, Need } from './relations';
import { ATTRIBUTES, RULES, fillReason, type Attribute, type Rule } from './rules';

const RULE_LIST: readonly (readonly [string, Rule])[] = Object.entries(RULES);
const TYPES = demoPartTypes();
const SETTINGS = { strapValues: resistorsBetween('E24', 1000, 1e6), strapTolerance: 0.01, nowH: 0 };

describe('the table', () => {
  test.each(RULE_LIST)('%s names its source, and asks for an action only where it can be mended', (id, rule) => {
    expect(rule.source.length).toBeGreaterThan(3);
    expect(rule.reason).toMatch(/[.]$/);
    expect(rule.action !== undefined).toBe(rule.outcome === 'fixable');
    if (id !== 'unknown') expect(ATTRIBUTES).toContain(id.split('/')[0]);
  });

  test('every attribute can be the same or fit, and can stand in the way or need work', () => {
    for (const attribute of ATTRIBUTES) {
      const outcomes = RULE_LIST.filter(([id]) => id.startsWith(`${attribute}/`)).map(([, r]) => r.outcome);
      expect([attribute, outcomes.some((o) => o === 'same' || o === 'fits')]).toEqual([attribute, true]);
      expect([attribute, outcomes.some((o) => o === 'blocks' || o === 'fixable')]).toEqual([attribute, true]);
    }
  });

  test('what compares or asks for work, and what is unknown, is not for a bench to judge otherwise', () => {
    const changeable = RULE_LIST.filter(([, r]) => isChangeable(r)).map(([id]) => id);
    expect(changeable).toEqual(expect.arrayContaining(['revision/later', 'revision/earlier', 'pins/differ']));
    for (const id of ['unknown', 'package/same', 'position/strapsWrong', 'partner/comes'])
      expect(changeable).not.toContain(id);
  });

  test('a reason is filled with what was compared, and keeps a name that nobody gave', () => {
    expect(fillReason('{a} after {b}.', { a: 'R3', b: 'R2' })).toBe('R3 after R2.');
    expect(fillReason('{a} after {b}.', { a: 'R3' })).toBe('R3 after {b}.');
  });
});

const needs = DEMO_BOARDS.flatMap((id) => {
  const board = demoBoard(id);
  return board.slots.map((slot): Need => ({ board, slot, built: TYPES.find((t) => t.id === slot.type) }));
});
const candidates = (type: PartType): Candidate[] => [
  { type, marks: [] },
  { type },
  { type, withPartner: true, from: { boardId: 'marshdesk-2-b', position: 'port-2' } },
];

test('no reason of any type at any place leaves a name unfilled', () => {
  let judged = 0;
  for (const need of needs)
    for (const imageSound of [true, false, undefined])
      for (const type of TYPES)
        for (const candidate of candidates(type)) {
          const { cells, actions } = judgeFit({ ...need, imageSound }, candidate, [], SETTINGS);
          expect(cells.map((c) => c.attribute)).toEqual(ATTRIBUTES);
          for (const text of [...cells.map((c) => c.reason), ...actions.map((a) => a.words)])
            expect(text).not.toMatch(/[{}]|undefined|NaN/);
          judged += 1;
        }
  expect(judged).toBeGreaterThan(1000);
});

describe('what a profile does not say is not known', () => {
  const need = { ...needs.find((n) => n.slot.ref === 'U4')!, imageSound: true };
  const type = TYPES.find((t) => t.id === 'heron-pd-r2')!;
  test.each<[Attribute, keyof PartType, string]>([
    ['package', 'package', 'Not known: its package.'],
    ['pins', 'pins', 'Not known: its pin map.'],
    ['supply', 'supplyV', 'Not known: its supply range.'],
    ['position', 'position', 'Not known: where its position lives.'],
    ['position', 'strapCode', 'Not known: its strap code.'],
    ['image', 'imageFamily', 'Not known: the image it loads.'],
    ['partner', 'partner', 'Not known: whether it is paired with a memory.'],
    ['height', 'thicknessMm', 'Not known: how tall it is.'],
    ['heat', 'bodyLimitC', 'Not known: what its body bears.'],
    ['moisture', 'moisture', 'Not known: its moisture level.'],
  ])('%s without %s', (attribute, field, reason) => {
    const fit = judgeFit(need, { type: { ...type, [field]: undefined }, marks: [] }, [], SETTINGS);
    expect(fit.cells.find((c) => c.attribute === attribute)).toMatchObject({ outcome: 'unknown', reason });
    expect(fit.verdict).toBe('notTried');
  });

  test('nor what the library does not say of the type as built', () => {
    const fit = judgeFit({ ...need, built: undefined }, { type, marks: [] }, [], SETTINGS);
    const unknown = fit.cells.filter((c) => c.outcome === 'unknown').map((c) => c.attribute);
    expect(unknown).toEqual(['pins', 'revision']);
  });
});
