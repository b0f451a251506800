import { demoBoard } from '../../../demo/files';
import { balledPart, sitePads } from '@/core/inspect';
import { partByRef } from '@/core/board';
import { FakeWorker, fakeWorkers } from '../tests/fake-worker';
import { inspectInWorker } from './client';

beforeAll(fakeWorkers);

const board = demoBoard('heronlog-4-c');
const part = balledPart(board.packages[partByRef(board, 'U8')!.package])!;

test('hands the picture and the part over, and ends the worker with what was seen', async () => {
  const picture = new Blob(['x']);
  const { answer } = inspectInWorker({ kind: 'look', picture, part });
  expect(FakeWorker.last.sent[0]).toMatchObject({ kind: 'look', part: { pitchMm: 0.8 } });
  FakeWorker.last.reply({ kind: 'problem', message: 'Expected a PNG or JPEG picture.' });
  expect(await answer).toEqual({ kind: 'problem', message: 'Expected a PNG or JPEG picture.' });
  expect(FakeWorker.last.ended).toBe(true);
});

test('cancelling ends it; a crash becomes a problem that can be tried again', async () => {
  const first = inspectInWorker({ kind: 'take', part, specimen: 'worn', seed: 1 });
  first.cancel();
  expect([await first.answer, FakeWorker.last.ended]).toEqual([{ kind: 'cancelled' }, true]);
  const second = inspectInWorker({ kind: 'take', part, specimen: 'worn', seed: 1 });
  FakeWorker.last.onerror?.();
  expect(await second.answer).toMatchObject({ kind: 'problem', message: expect.stringMatching(/Try again/) });
});

test('pads are looked at, and taken, in the same way', async () => {
  const pads = sitePads(board.packages.QFN24);
  const looked = inspectInWorker({ kind: 'lookPads', picture: new Blob(['x']), pads });
  expect(FakeWorker.last.sent[0]).toMatchObject({ kind: 'lookPads', pads: { length: pads.length } });
  const inspection = { toPicture: [1, 0, 0, 0, 1, 0, 0, 0], pads: [], bridges: [] };
  FakeWorker.last.reply({ kind: 'padsSeen', inspection, width: 3, height: 2, tookMs: 1 });
  expect(await looked.answer).toMatchObject({ kind: 'padsSeen', width: 3 });
  const taken = inspectInWorker({ kind: 'takePads', pads, specimen: 'sound', seed: 2 });
  FakeWorker.last.reply({ kind: 'taken', picture: new Blob(['y']) });
  expect(await taken.answer).toMatchObject({ kind: 'taken' });
});
