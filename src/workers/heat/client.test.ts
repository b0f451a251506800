import { FakeWorker, fakeWorkers } from '../tests/fake-worker';
import { demoBoard } from '../../../demo/files';
import { GOALS_BY_ALLOY, NOMINAL_STATION, startingPlan } from '@/core/heat';
import { runHeatPlan } from './client';
import { runSideBySide } from './side-by-side';

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
  FakeWorker.last.reply({ kind: 'problem', message: 'The simulation stopped.' });
  expect(progress).toEqual([12]);
  expect(await answer).toEqual({ kind: 'problem', message: 'The simulation stopped.' });
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
    expect(await answer).toMatchObject({ kind: 'problem', message: expect.stringMatching(/try again/) });
  },
);

const done = { kind: 'done', plan: request.plan, tookMs: 1 };

test('a worker that has answered serves the next run; cancelling the first one then does nothing to it', async () => {
  const first = runHeatPlan(request, () => {});
  const worker = FakeWorker.last;
  worker.reply(done);
  await first.answer;
  const second = runHeatPlan(request, () => {});
  expect(FakeWorker.last).toBe(worker);
  expect(worker.sent).toHaveLength(2);
  first.cancel();
  expect(worker.ended).toBe(false);
  worker.reply(done);
  expect((await second.answer).kind).toBe('done');
});

/** The workers that are asked from now on, idle ones among them. */
function asked(): FakeWorker<unknown>[] {
  const made: FakeWorker<unknown>[] = [];
  jest.spyOn(FakeWorker.prototype, 'postMessage').mockImplementation(function (this: FakeWorker<unknown>) {
    made.push(this);
  });
  return made;
}
afterEach(() => jest.restoreAllMocks());

test('several runs go two at a time and come back in their order', async () => {
  const made = asked();
  const plans = [10, 20, 30].map((c) => ({ ...request, plan: { ...request.plan, ambientC: c } }));
  const side = runSideBySide(plans);
  expect(made).toHaveLength(2);
  made[1].reply({ ...done, plan: plans[1].plan });
  await new Promise((resolve) => setTimeout(resolve));
  expect(made).toHaveLength(3);
  made[2].reply({ ...done, plan: plans[2].plan });
  made[0].reply({ ...done, plan: plans[0].plan });
  expect((await side.answers)?.map((a) => a.plan.ambientC)).toEqual([10, 20, 30]);
});

test('one that fails leaves all without an answer', async () => {
  const made = asked();
  const side = runSideBySide([request]);
  made[0].reply({ kind: 'problem', message: 'The simulation stopped.' });
  expect(await side.answers).toBeUndefined();
});
