/** The threads give what the same code gives here. */
import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import Piscina from 'piscina';
import { demoBoard } from '../../demo/files';
import { courseOn } from '../core/drill';
import { viewJob, type EventBody, type JobEvent } from '../core/job';
import { work } from './pool';
import { TASKS } from './tasks';

const folder = mkdtempSync(path.join(tmpdir(), 'unisolda-threads-'));
const filename = path.join(folder, 'work.mjs');
let threads: Piscina;
beforeAll(() => {
  execFileSync(process.execPath, ['scripts/build-server-work.mjs', filename]);
  threads = new Piscina({ filename, maxThreads: 1 });
});
afterAll(async () => {
  await threads.destroy();
  rmSync(folder, { recursive: true, force: true });
});

const board = demoBoard('heronlog-4-c');
const OPENED = '2026-11-24T08:00:00.000Z';
const bodies: EventBody[] = [
  { kind: 'story', symptom: 'dead', history: [], dataMatters: false, locked: false, consent: true, pack: 'none' },
  { kind: 'note', text: 'seen' },
];
const events = bodies.map((body, i): JobEvent => ({
  seq: i + 1,
  at: OPENED,
  bench: 'Bench 1',
  actor: 'Bench lead',
  body,
}));
const request = {
  ...{ board, number: 7, openedAt: OPENED, events, knowledge: {} },
  purpose: { training: false, simulators: false },
};

test('a view from a thread is the view, but for what whoever asks has already', async () => {
  const { board: _board, references: _references, ...whole } = viewJob(7, OPENED, board, events);
  const plain = JSON.parse(JSON.stringify(whole)) as object;
  for (const view of [await threads.run({ task: 'view', request }), await work('view', request)])
    expect(JSON.parse(JSON.stringify(view))).toEqual(plain);
});

test('a test is weighed in a thread as here, and what is asked says which', async () => {
  const asked = { do: 'weigh', measurement: { kind: 'groundResistance', net: 'AON33' } } as const;
  const [there, here] = [
    await threads.run({ task: 'why', request: { ...request, asked } }),
    await work('why', { ...request, asked }),
  ];
  expect(there).toBe(here);
  expect(here).toMatch(/^TP7 to ground, resistance: \d\.\d\d bit in /);
});

test('a second view of the same board gives the same: the tables that were kept are the right ones', async () => {
  const [first, second] = [
    await threads.run({ task: 'view', request }),
    await threads.run({ task: 'view', request: { ...request, board: structuredClone(board) } }),
  ];
  expect(second).toEqual(first);
  const other = demoBoard('marshdesk-2-b');
  const view = (await threads.run({ task: 'view', request: { ...request, board: other } })) as { tests: object[] };
  expect(JSON.stringify(view.tests)).not.toBe(JSON.stringify((first as { tests: object[] }).tests));
});

test('a drill costs the program the same in a thread @long', async () => {
  const drill = courseOn([board])[0];
  expect(await threads.run({ task: 'par', request: { board, drill } })).toEqual(TASKS.par({ board, drill }));
});

test('what a task cannot do is an error, and the thread goes on', async () => {
  await expect(threads.run({ task: 'view', request: { ...request, board: {} } })).rejects.toThrow();
  expect(await threads.run({ task: 'warm', request: board })).toBeUndefined();
});
