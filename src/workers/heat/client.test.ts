import { FakeWorker, fakeWorkers } from '../tests/fake-worker';
import { demoBoard } from '../../../demo/files';
import { GOALS_BY_ALLOY, NOMINAL_STATION, startingPlan } from '@/core/heat';
import { runHeatPlan } from './client';

jest.mock('./heat.worker.ts', () => ({}), { virtual: true });
beforeAll(fakeWorkers);

const request = {
  board: demoBoard('heronlog-4-c'),
  station: NOMINAL_STATION,
  plan: startingPlan('U4', 'SAC305', 4),
  goals: GOALS_BY_ALLOY.SAC305,
  aim: false,
};

test('hands the request over as plain data, tells progress, and ends the worker with the answer', async () => {
  const progress: number[] = [];
  const { answer } = runHeatPlan(request, (doneS) => progress.push(doneS));
  expect(structuredClone(FakeWorker.last.sent[0])).toEqual(request);
  FakeWorker.last.reply({ kind: 'progress', doneS: 12, totalS: 100 });
  FakeWorker.last.reply({ kind: 'problem', words: 'The simulation stopped.' });
  expect(progress).toEqual([12]);
  expect(await answer).toEqual({ kind: 'problem', words: 'The simulation stopped.' });
  expect(FakeWorker.last.ended).toBe(true);
});

test('cancelling ends the worker and answers', async () => {
  const { answer, cancel } = runHeatPlan(request, () => {});
  cancel();
  expect(await answer).toEqual({ kind: 'cancelled' });
  expect(FakeWorker.last.ended).toBe(true);
});

test.each(['onerror', 'onmessageerror'] as const)(
  'a worker that ends by %s becomes a problem that can be tried again',
  async (event) => {
    const { answer } = runHeatPlan(request, () => {});
    FakeWorker.last[event]!();
    expect(await answer).toMatchObject({ kind: 'problem', words: expect.stringMatching(/try again/) });
  },
);
