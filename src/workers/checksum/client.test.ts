import { FakeWorker, fakeWorkers } from '../tests/fake-worker';
import { checksumsInWorker } from './client';

beforeAll(fakeWorkers);
const images = [new Uint8Array(64)];

test('progress is told while it searches, and what was found ends the worker', async () => {
  const told: number[] = [];
  const { answer } = checksumsInWorker({ images }, ({ done }) => told.push(done));
  expect(FakeWorker.last.sent[0]).toEqual({ images });
  FakeWorker.last.reply({ kind: 'progress', done: 0.5, tookMs: 10 });
  const found = { claims: [], possible: [], tried: 12 };
  FakeWorker.last.reply({ kind: 'found', found, tookMs: 20 });
  expect(await answer).toEqual({ kind: 'found', found, tookMs: 20 });
  expect([told, FakeWorker.last.ended]).toEqual([[0.5], true]);
});

test('cancelling ends it; a crash becomes a problem that can be tried again', async () => {
  const first = checksumsInWorker({ images }, () => {});
  first.cancel();
  expect([await first.answer, FakeWorker.last.ended]).toEqual([{ kind: 'cancelled' }, true]);
  const second = checksumsInWorker({ images }, () => {});
  FakeWorker.last.onerror?.();
  expect(await second.answer).toMatchObject({ kind: 'problem', message: expect.stringMatching(/Try again/) });
});
