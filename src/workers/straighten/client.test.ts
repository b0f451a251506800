import { FIRST_ANSWERS, firstBoard } from '@/core/sketch';
import { carryInWorker } from '../carry/client';
import { FakeWorker, fakeWorkers } from '../tests/fake-worker';
import { straightenInWorker } from './client';

beforeAll(fakeWorkers);

const points = [
  { mm: { x: 0, y: 0 }, px: { x: 10, y: 12 } },
  { mm: { x: 60, y: 0 }, px: { x: 610, y: 14 } },
  { mm: { x: 60, y: 40 }, px: { x: 605, y: 412 } },
  { mm: { x: 0, y: 40 }, px: { x: 8, y: 408 } },
];

test('hands the photograph and its corners over, and ends the worker with the flat one', async () => {
  const { answer } = straightenInWorker({ kind: 'lay', picture: new Blob(['x']), points, sizeMm: [60, 40] });
  expect(FakeWorker.last.sent[0]).toMatchObject({ kind: 'lay', sizeMm: [60, 40], points: { length: 4 } });
  const place = { widthMm: 60, heightMm: 40, pxPerMm: 10, doubtMm: 0.05 };
  FakeWorker.last.reply({ kind: 'flat', picture: new Blob(['y']), place });
  expect(await answer).toMatchObject({ kind: 'flat', place });
  expect(FakeWorker.last.ended).toBe(true);
});

test('what was seen comes back; cancelling ends the look, a crash can be tried again', async () => {
  const look = { kind: 'look', href: '/pictures/abc', widthMm: 60, choices: [] } as const;
  const first = straightenInWorker(look);
  FakeWorker.last.reply({ kind: 'seen', bodies: [] });
  expect(await first.answer).toEqual({ kind: 'seen', bodies: [] });
  const second = straightenInWorker(look);
  second.cancel();
  expect([await second.answer, FakeWorker.last.ended]).toEqual([{ kind: 'cancelled' }, true]);
  const third = straightenInWorker(look);
  FakeWorker.last.onerror?.();
  expect(await third.answer).toMatchObject({ kind: 'problem', message: expect.stringMatching(/Try again/) });
});

test('how far a board carries is asked with the board alone', async () => {
  const board = firstBoard('tern-1', { ...FIRST_ANSWERS, device: 'Tern 1' });
  if (!board.ok) throw new Error(board.problems[0].message);
  const { answer } = carryInWorker(board.value);
  expect(FakeWorker.last.sent[0]).toMatchObject({ board: { id: 'tern-1' } });
  FakeWorker.last.reply({ kind: 'carry', carry: { stages: [], worth: [] } });
  expect(await answer).toEqual({ kind: 'carry', carry: { stages: [], worth: [] } });
});
