import { demoBoard } from '../../../demo/files';
import { boardMeasurements, singleFaults } from '../diagnose';
import { completeBoard, completionChecks, startCompletion, type Completion } from './completion';
import { draftBoard } from './draft';
import { recordsOf } from './export';
import { foreignFromRecords } from './from-records';
import { infer } from './infer';

const heron = demoBoard('heronlog-4-c');
const foreign = foreignFromRecords(recordsOf(heron));
const draft = draftBoard('from-file', foreign, infer(foreign));
const start = startCompletion(draft);

/** What a technician says of the demo board, in the words of its own file. */
const said: Completion = {
  ...start,
  device: heron.device,
  name: heron.name,
  revision: heron.revision,
  copperLayers: '10',
  kinds: Object.fromEntries(heron.parts.map((p) => [p.ref, p.kind])),
  ohms: Object.fromEntries(heron.parts.flatMap((p) => (p.ohm === undefined ? [] : [[p.ref, `${p.ohm} ohm`]]))),
  ports: [
    {
      ...start.ports[0],
      connector: 'j1',
      controller: 'U4',
      imagePart: 'U9',
      designV: '15',
      controllerRails: 'AON33 PD18',
    },
  ],
  rails: heron.rails.map((r) => ({
    net: r.net,
    volts: r.expect.kind === 'bus' ? 'bus' : String(r.expect.volts),
    from: r.feeds[0].from ?? '',
    by: r.feeds[0].by ?? '',
    via: r.feeds[0].via.join(', '),
    needs: r.feeds[0].needs[0] ?? '',
  })),
  functions: heron.functions.map((f) => ({
    what: f.what,
    parts: f.parts.join(' '),
    rails: f.rails.join(' '),
    minutes: String(f.minutes),
  })),
  plastic: 'J1, J3',
  underfilled: 'U8',
};

test('a fresh draft says in every section what is missing, and is no board yet', () => {
  const checks = completionChecks(draft, start);
  expect(new Set(checks.map((c) => c.section))).toEqual(new Set(['names', 'parts', 'port', 'rails', 'functions']));
  expect(completeBoard(draft, start).ok).toBe(false);
});

test('filled in, it is a board on which the diagnosis works as on the original', () => {
  expect(completionChecks(draft, said)).toEqual([]);
  const made = completeBoard(draft, said);
  if (!made.ok) throw new Error(JSON.stringify(made.problems.slice(0, 4)));
  const board = made.value;
  expect(board.rails.map((r) => r.id)).toEqual(heron.rails.map((r) => r.id));
  expect(board.parts.find((p) => p.ref === 'U8')).toMatchObject({ underfilled: true, kind: 'processor' });
  expect(board.parts.find((p) => p.ref === 'J1')!.bodyLimitC).toBe(200);
  const modes = (of: typeof board): Set<string> => new Set(singleFaults(of).map((f) => f.id.split('/')[0]));
  for (const ref of ['U4', 'U9', 'F1', 'J1', 'FL1', 'C14']) expect(modes(board).has(ref)).toBe(true);
  // The file says less of resistances than the original: no test goes missing by it.
  expect(boardMeasurements(board).length).toBeGreaterThan(0.9 * boardMeasurements(heron).length);
});

test.each([
  ['names', { copperLayers: 'many' }, /copper layers/],
  ['names', { id: 'Two Words' }, /small letters/],
  ['parts', { ohms: { ...said.ohms, R4: 'some' } }, /values: R4\./],
  ['port', { ports: [{ ...said.ports[0], controller: 'U99' }] }, /controller/],
  ['port', { ports: [{ ...said.ports[0], cc2Net: 'CC1' }] }, /both CC nets/],
  ['port', { ports: [{ ...said.ports[0], healthyA: '0.8' }] }, /0\.4 0\.8/],
  [
    'rails',
    { rails: [{ ...said.rails[0], from: 'VIN' }, ...said.rails.slice(1)] },
    /must stand before it|from the port/,
  ],
  ['rails', { rails: said.rails.map((r) => ({ ...r, via: 'X9' })) }, /got X9/],
  ['functions', { functions: [{ ...said.functions[0], minutes: '' }] }, /minutes/],
  ['limits', { plastic: 'J77' }, /got J77/],
] as const)('%s: what does not fit is said in a sentence', (section, change, words) => {
  const found = completionChecks(draft, { ...said, ...change } as Completion).filter((c) => c.section === section);
  expect(found.map((c) => c.message).join(' ')).toMatch(words);
});

test('a controller without a memory of its own: no image to check, and it talks by itself', () => {
  const without = { ...said, ports: [{ ...said.ports[0], imagePart: '' }] };
  expect(completionChecks(draft, without)).toEqual([]);
  const made = completeBoard(draft, without);
  if (!made.ok) throw new Error(made.problems[0].message);
  expect(made.value.ports[0].imagePart).toBeUndefined();
  expect(boardMeasurements(made.value).some((m) => m.kind === 'imageCheck')).toBe(false);
  expect(singleFaults(made.value).some((f) => f.id.startsWith('imageBad'))).toBe(false);
});

test('each port of several is checked by itself', () => {
  const two = { ...said, ports: [said.ports[0], { ...said.ports[0], connector: 'J9', designV: '' }] };
  expect(completionChecks(draft, two).map((c) => c.message)).toEqual([
    'Name the port’s connector of J9.',
    'Give the port’s design level in volts of J9.',
  ]);
});
