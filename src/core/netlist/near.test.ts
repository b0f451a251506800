import { plausibleBoard } from '../../../bench/diagnose/plausible-board';
import { demoBoard } from '../../../demo/files';
import {
  completeBoard,
  completionChecks,
  draftBoard,
  foreignFromRecords,
  infer,
  nearOf,
  recordsOf,
  startCompletion,
  type Completion,
} from '.';
import { parseKicad } from './kicad';
import { kicadText } from './tests/kicad-text';

const large = plausibleBoard(600);
const records = foreignFromRecords(recordsOf(large));
const draft = draftBoard('large', records, infer(records));

test('of a board of a few hundred parts everything is asked', () => {
  const foreign = foreignFromRecords(recordsOf(demoBoard('heronlog-4-c')));
  const small = draftBoard('small', foreign, infer(foreign));
  expect([small.near, small.assumed]).toEqual([undefined, []]);
  expect(startCompletion(small).rails).toHaveLength(small.inference.rails.length);
});

test('of a large board the ports, their chips, their rails and what feeds those are near, wherever they stand', () => {
  const { parts, rails, railsBeyond } = nearOf(records, infer(records))!;
  for (const ref of ['J1', 'U4', 'U9', 'U5']) expect(parts).toContain(ref);
  const names = rails.map((r) => r.net);
  expect(names).toEqual(expect.arrayContaining(['VBUS', 'VBUS_F', 'VIN', 'VSYS', 'AON33', 'PD18']));
  for (const rail of rails) if (rail.from !== undefined) expect(names).toContain(rail.from);
  // Converters of the blocks round it, whose volts no name tells, are asked of nobody and named.
  expect(railsBeyond.length).toBeGreaterThan(4);
  expect(railsBeyond.every((r) => r.volts === undefined && !names.includes(r.net))).toBe(true);
  expect(draft.missing.join(' ')).toContain(`${railsBeyond.length} supplies further off count as loads: `);
});

test('only resistors near the port are asked for their values; those further off say that theirs is assumed', () => {
  const parts = draft.board.parts as { ref: string; kind: string; ohm?: number; assumed?: string[] }[];
  const resistors = parts.filter((p) => p.kind === 'resistor');
  const known = resistors.filter((p) => p.ohm === undefined).map((p) => p.ref);
  expect(known.length).toBeLessThan(12);
  expect(draft.asked).toEqual(expect.arrayContaining(known));
  expect(draft.assumed).toHaveLength(resistors.length - known.length);
  for (const ref of draft.assumed) expect(parts.find((p) => p.ref === ref)!.assumed).toEqual(['value']);
});

test('a value that is typed over an assumed one is known', () => {
  const start = startCompletion(draft);
  const [typed, left] = draft.assumed;
  const said: Completion = {
    ...start,
    ...{ device: 'Large gauge', name: 'main board', revision: 'A', copperLayers: '6' },
    ohms: { ...Object.fromEntries(draft.asked.map((ref) => [ref, '1k'])), ...start.ohms, [typed]: '47k' },
    ports: start.ports.map((p) => ({ ...p, designV: '15' })),
    rails: start.rails.map((r) => (r.volts === '' ? { ...r, volts: '4.2' } : r)),
    functions: [{ what: 'charges', parts: 'U5', rails: '', minutes: '2' }],
  };
  const board = completeBoard(draft, said);
  if (!board.ok) throw new Error(board.problems[0].message);
  const part = (ref: string) => board.value.parts.find((p) => p.ref === ref)!;
  expect([part(typed).ohm, part(typed).assumed]).toEqual([47_000, undefined]);
  expect([part(left).ohm, part(left).assumed]).toEqual([10_000, ['value']]);
});

test('a layout that carries values leaves no more than a dozen things to be said, and makes a board then', () => {
  const foreign = parseKicad(kicadText(large, 8));
  if (!foreign.ok) throw new Error(foreign.problems[0].message);
  const layout = draftBoard('large', foreign.value, infer(foreign.value));
  const start = startCompletion(layout);
  const voltless = start.rails.filter((r) => r.volts === '').map((r) => r.net);
  // Device, board, revision, level, a function's words and parts, and the volts of what no name tells.
  expect(6 + voltless.length).toBeLessThanOrEqual(12);
  const said: Completion = {
    ...start,
    ...{ device: 'Large gauge', name: 'main board', revision: 'A' },
    ports: start.ports.map((p) => ({ ...p, designV: '15' })),
    rails: start.rails.map((r) => (r.volts === '' ? { ...r, volts: '4.2' } : r)),
    functions: [{ what: 'charges', parts: 'U5', rails: '', minutes: '2' }],
  };
  expect(completionChecks(layout, said)).toEqual([]);
  const board = completeBoard(layout, said);
  const refs = board.ok ? board.value.parts.map((p) => p.ref) : [];
  expect(refs).toEqual(expect.arrayContaining(large.parts.map((p) => p.ref)));
});
