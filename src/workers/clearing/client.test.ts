import { demoBoard } from '../../../demo/files';
import { NOMINAL_STATION, startingPlan } from '@/core/heat';
import { FakeWorker, fakeWorkers } from '../tests/fake-worker';
import { planClearingInWorker } from './client';

beforeAll(fakeWorkers);

const board = demoBoard('heronlog-4-c');
const request = { board, station: NOMINAL_STATION, plan: startingPlan('U4', board.alloy, 6), underfill: null };

test('hands the board, the station and the plan over as plain data', async () => {
  const { answer } = planClearingInWorker(request);
  expect(FakeWorker.last.sent).toEqual([request]);
  FakeWorker.last.reply({ kind: 'problem', message: 'Expected a part of this board; got U99.' });
  expect(await answer).toMatchObject({ kind: 'problem' });
});

test('cancelling ends it; a crash becomes a problem that can be tried again', async () => {
  const first = planClearingInWorker(request);
  first.cancel();
  expect(await first.answer).toEqual({ kind: 'cancelled' });
  const second = planClearingInWorker(request);
  FakeWorker.last.onmessageerror?.();
  expect(await second.answer).toMatchObject({ kind: 'problem', message: expect.stringMatching(/Try again/) });
});
