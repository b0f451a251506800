import { demoBoard } from '../../../../demo/files';
import { parseBoardText } from '../../board';
import { UPPER_BOARD, startingPlan } from '../../heat';
import type { EventBody, JobEvent } from '../log';
import { misfits } from './misfits';
import { fitToBoard, unknownOnBoard } from './unknown-on-board';

const heron = demoBoard('heronlog-4-c');
/** The same board as somebody else named it. */
const other = (() => {
  const text = JSON.stringify(heron)
    .replaceAll('"VPACK"', '"VBATT"')
    .replaceAll('"U4"', '"U40"')
    .replaceAll('"J1"', '"J10"');
  const board = parseBoardText(text);
  if (!board.ok) throw new Error(board.problems[0].message);
  return board.value;
})();
const event = (seq: number, body: JobEvent['body']): JobEvent => ({
  ...{ seq, at: '2026-11-24T08:00:00.000Z', bench: 'Bench 1', actor: 'Lead', body },
});

const NAMING: readonly (readonly [string, EventBody])[] = [
  ['a net', reading({ kind: 'groundResistance', net: 'VPACK' })],
  ['a part that came off', { kind: 'partOff', ref: 'U4' }],
  ['a part that went on', { kind: 'partOn', ref: 'U4', fresh: true }],
  ['a site', { kind: 'site', ref: 'U4', words: 'level' }],
  ['an image', { kind: 'imageWritten', ref: 'U4', sha256: '0'.repeat(64) }],
];

function reading(measurement: Extract<EventBody, { kind: 'reading' }>['measurement']): EventBody {
  return { kind: 'reading', measurement, value: { kind: 'figure', value: 2.2 } };
}

test.each(NAMING)('%s is known on its own board and named on another', (_, body) => {
  expect(unknownOnBoard(heron, body)).toBeUndefined();
  expect(unknownOnBoard(other, body)).toMatch(/^Expected .*; got "(VPACK|U4)"/);
});

const FITTING: readonly EventBody[] = [
  { kind: 'note', text: 'x' },
  { kind: 'pack', state: 'out' },
  { kind: 'soak', act: 'start', minutes: 5 },
  reading({ kind: 'groundResistance', net: 'AON33' }),
];

test('what names nothing that is gone fits any file', () => {
  expect(FITTING.map((body) => unknownOnBoard(other, body))).toEqual(FITTING.map(() => undefined));
});

test('a ghost of a board’s own is named too: shields, ports, what is mended', () => {
  expect(unknownOnBoard(heron, { kind: 'shield', id: 'SH9', off: true })).toMatch(/got "SH9"/);
  expect(unknownOnBoard(heron, { kind: 'mended', what: 'nothing' })).toMatch(/rail or a screw .*got "nothing"/);
  expect(unknownOnBoard(heron, { kind: 'shield', id: 'SH9', off: true })).toContain(
    'none, the board file has no shield',
  );
  const marsh = demoBoard('marshdesk-2-b');
  const shields = marsh.shields.map((s) => s.id);
  expect(unknownOnBoard(marsh, { kind: 'shield', id: shields[0], off: true })).toBeUndefined();
  expect(unknownOnBoard(marsh, { kind: 'shield', id: 'SH9', off: true })).toBe(
    `Expected a shield of this board after "shield": ${shields.join(', ')}; got "SH9".`,
  );
  for (const what of ['U4', 'U9/image'])
    expect(unknownOnBoard(heron, { kind: 'mended', what })).toMatch(/rail or a screw/);
  expect(unknownOnBoard(heron, { kind: 'mended', what: 'VIN' })).toBeUndefined();
  const port = heron.ports[0].id;
  for (const kind of ['trace', 'capture'] as const)
    expect(unknownOnBoard(marsh, { kind, port: marsh.ports[1].id } as unknown as EventBody)).toBeUndefined();
  expect(port).toBe('J1');
  const trace = { kind: 'trace', port: 'J9' } as unknown as EventBody;
  expect(unknownOnBoard(heron, trace)).toBe(`Expected one of the ports ${port}; got "J9".`);
});

test('a heat plan fits where its part and what it covers are there; the upper board of a stack is no part of any file', () => {
  const plan = startingPlan('U4', 'SAC305', 4);
  const kept = (more: object): EventBody => ({
    ...{ kind: 'heatPlan', stationId: 'bench-1', shown: { actAtS: 60, tightest: null, breaks: [] } },
    plan: { ...plan, ...more },
  });
  expect(unknownOnBoard(heron, kept({ covers: ['U9'] }))).toBeUndefined();
  expect(unknownOnBoard(other, kept({}))).toBe('Expected a plan for parts of this board; got "U4".');
  expect(unknownOnBoard(other, kept({ partRef: 'U9', covers: ['U8', 'U4'] }))).toMatch(/got "U4"/);
  expect(unknownOnBoard(heron, kept({ partRef: UPPER_BOARD }))).toBeUndefined();
});

test('a record is shown with its misfits marked, and untouched where everything fits', () => {
  const events = [event(1, { kind: 'note', text: 'x' }), event(2, { kind: 'partOff', ref: 'U4' })];
  expect(fitToBoard(heron, events)).toBe(events);
  const [first, second] = fitToBoard(other, events);
  expect(first).toBe(events[0]);
  expect(second).toMatchObject({ seq: 2, body: { kind: 'unreadable', problem: expect.stringContaining('"U4"') } });
});

test('misfits are what the present file has and the other has not; what was wrong before is no news', () => {
  const events = [
    event(1, reading({ kind: 'groundResistance', net: 'AON33' })),
    event(2, reading({ kind: 'groundResistance', net: 'VPACK' })),
    event(3, { kind: 'partOff', ref: 'GHOST' }),
    event(4, { kind: 'unreadable', problem: 'torn' }),
    event(5, { kind: 'partOff', ref: 'U4' }),
    event(6, { kind: 'undo', seq: 5 }),
  ];
  expect(misfits(heron, other, events)).toEqual([expect.stringMatching(/^Entry 2, .*got "VPACK"\.$/)]);
  expect(misfits(heron, heron, events)).toEqual([]);
});
