/** The page's side of a task: one request, progress, an answer, and an end. */
import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { defineWorkerTask } from './task';
import { FakeWorker, fakeWorkers } from './tests/fake-worker';

beforeAll(fakeWorkers);
beforeEach(() => void FakeWorker.made.splice(0));

const task = (idle?: number) =>
  defineWorkerTask<{ ask: string }, number, string>({
    worker: () => new Worker('nowhere'),
    crashed: 'It ended unexpectedly. Try again.',
    idle,
  });

test('a request goes over as plain data, progress is told with its time, the answer ends the worker', async () => {
  const told: unknown[] = [];
  const { answer } = task().start({ ask: 'x' }, (progress, tookMs) => told.push([progress, tookMs]));
  expect(FakeWorker.last.sent).toEqual([{ ask: 'x' }]);
  FakeWorker.last.onmessage?.({ data: { kind: 'progress', progress: 'half', tookMs: 7 } });
  expect([told, FakeWorker.last.ended]).toEqual([[['half', 7]], false]);
  FakeWorker.last.done(5, 12);
  expect(await answer).toEqual({ kind: 'done', value: 5, tookMs: 12 });
  expect(FakeWorker.last.ended).toBe(true);
});

test('a problem ends the worker too, whatever is kept idle', async () => {
  const { answer } = task(2).start({ ask: 'x' });
  FakeWorker.last.onmessage?.({ data: { kind: 'problem', message: 'Expected a picture.' } });
  expect([await answer, FakeWorker.last.ended]).toEqual([{ kind: 'problem', message: 'Expected a picture.' }, true]);
});

test('cancelling ends the worker and answers; what it says afterwards counts for nothing', async () => {
  const { answer, cancel } = task().start({ ask: 'x' });
  cancel();
  FakeWorker.last.done(5);
  expect([await answer, FakeWorker.last.ended]).toEqual([{ kind: 'cancelled' }, true]);
});

test.each(['onerror', 'onmessageerror'] as const)(
  'a crash by %s is a problem that can be tried again',
  async (event) => {
    const { answer } = task().start({ ask: 'x' });
    FakeWorker.last[event]!();
    expect(await answer).toEqual({ kind: 'problem', message: 'It ended unexpectedly. Try again.' });
  },
);

test('an idle worker serves the next request; cancelling the one before does nothing to it', async () => {
  const kept = task(1);
  const first = kept.start({ ask: 'a' });
  const worker = FakeWorker.last;
  worker.done(1);
  await first.answer;
  const second = kept.start({ ask: 'b' });
  expect([FakeWorker.made.length, worker.sent.length]).toEqual([1, 2]);
  first.cancel();
  expect(worker.ended).toBe(false);
  worker.done(2);
  expect(await second.answer).toMatchObject({ value: 2 });
});

test('no more wait idle than were asked for', async () => {
  const kept = task(1);
  const runs = [kept.start({ ask: 'a' }), kept.start({ ask: 'b' })];
  FakeWorker.made.forEach((w, k) => w.done(k));
  await Promise.all(runs.map((r) => r.answer));
  expect(FakeWorker.made.map((w) => w.ended)).toEqual([false, true]);
});

const FOLDER = path.join('src', 'workers');
const files = readdirSync(FOLDER, { recursive: true, encoding: 'utf8' });
const source = (file: string): string => readFileSync(path.join(FOLDER, file), 'utf8');

test('every worker serves the task that names it, and every task names a worker that is there', () => {
  const named = files
    .filter((f) => path.basename(f) === 'task.ts')
    .flatMap((f) =>
      [...source(f).matchAll(/export const (\w+) = defineWorkerTask[^]*?new URL\('\.\/(.+?)'/g)].map(
        ([, name, worker]) => [path.join(path.dirname(f), `${worker.replace(/\.ts$/, '')}.ts`), name],
      ),
    );
  const served = files
    .filter((f) => f.endsWith('.worker.ts'))
    .map((f) => [f, /serveTask<typeof (\w+)>/.exec(source(f))?.[1]]);
  expect(served.length).toBeGreaterThan(15);
  expect(new Set(named.map(String))).toEqual(new Set(served.map(String)));
});
