import { FakeWorker, fakeWorkers } from '../tests/fake-worker';
import { compareInWorker } from './client';
import type { CompareReply } from './protocol';

beforeAll(fakeWorkers);
const files = [{ name: 'one.bin', content: new Blob([Uint8Array.of(1, 2, 3)]) }];

test('progress is told in words, what was seen ends the worker', async () => {
  const told: string[] = [];
  const { answer } = compareInWorker({ files, stretches: 8 }, ({ message }) => told.push(message));
  FakeWorker.last.reply({ kind: 'progress', done: 0.25, message: 'opening one.bin' });
  const seen: CompareReply = { kind: 'seen', images: [], seen: { against: [], overviews: [] }, tookMs: 4 };
  FakeWorker.last.reply(seen);
  expect(await answer).toEqual(seen);
  expect([told, FakeWorker.last.ended]).toEqual([['opening one.bin'], true]);
});

test('cancelling ends it; a crash becomes a problem that can be tried again', async () => {
  const first = compareInWorker({ files, stretches: 8 }, () => {});
  first.cancel();
  expect([await first.answer, FakeWorker.last.ended]).toEqual([{ kind: 'cancelled' }, true]);
  const second = compareInWorker({ files, stretches: 8 }, () => {});
  FakeWorker.last.onerror?.();
  expect(await second.answer).toMatchObject({ kind: 'problem', message: expect.stringMatching(/Try again/) });
});
