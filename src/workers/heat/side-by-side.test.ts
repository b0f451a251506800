import { demoBoard } from '../../../demo/files';
import { GOALS_BY_ALLOY, NOMINAL_STATION, startingPlan } from '@/core/heat';
import { FakeWorker, fakeWorkers } from '../tests/fake-worker';
import { runSideBySide } from './side-by-side';
import { heatTask } from './task';

const request = {
  board: demoBoard('heronlog-4-c'),
  station: NOMINAL_STATION,
  plan: startingPlan('U4', 'SAC305', 4),
  goals: GOALS_BY_ALLOY.SAC305,
  aim: false,
};
const plans = [10, 20, 30].map((c) => ({ ...request, plan: { ...request.plan, ambientC: c } }));

beforeAll(fakeWorkers);
// Workers wait idle for the next run: each test begins with none.
beforeEach(() => {
  jest.spyOn(heatTask, 'start').mockImplementation(() => {
    const worker = new FakeWorker();
    return {
      answer: new Promise((resolve) => (worker.onmessage = ({ data }) => resolve(data as never))),
      cancel: () => void (worker.ended = true),
    };
  });
  FakeWorker.made.splice(0);
});
afterEach(() => jest.restoreAllMocks());

test('several runs go two at a time and come back in their order', async () => {
  const side = runSideBySide(plans);
  const { made } = FakeWorker;
  expect(made).toHaveLength(2);
  made[1].done({ plan: plans[1].plan });
  await new Promise((resolve) => setTimeout(resolve));
  expect(made).toHaveLength(3);
  made[2].done({ plan: plans[2].plan });
  made[0].done({ plan: plans[0].plan });
  expect((await side.answers)?.map((a) => a.plan.ambientC)).toEqual([10, 20, 30]);
});

test('one that fails leaves all without an answer; cancelling ends those that run', async () => {
  const side = runSideBySide([request]);
  FakeWorker.last.onmessage?.({ data: { kind: 'problem', message: 'The simulation stopped.' } });
  expect(await side.answers).toBeUndefined();
  runSideBySide(plans).cancel();
  expect(FakeWorker.made.slice(1).map((w) => w.ended)).toEqual([true, true]);
});
