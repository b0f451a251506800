import { FakeWorker, fakeWorkers } from '../tests/fake-worker';
import type { AllocationProblem } from '@/core/allocation';
import { planQueue } from './client';

beforeAll(fakeWorkers);

const problem: AllocationProblem = { needs: [], supplies: [], donors: [], options: [] };

test('hands the queue over as plain data and ends the worker with the plan', async () => {
  const { answer } = planQueue({ problem });
  expect(FakeWorker.last.sent).toEqual([{ problem }]);
  const plan = { cost: 0, open: [], assigned: [], unmet: [] };
  FakeWorker.last.reply({ kind: 'done', plan, tookMs: 3 });
  expect(await answer).toEqual({ kind: 'done', plan, tookMs: 3 });
  expect(FakeWorker.last.ended).toBe(true);
});

test('cancelling ends the worker; a crash becomes a problem that can be tried again', async () => {
  const first = planQueue({ problem });
  first.cancel();
  expect([await first.answer, FakeWorker.last.ended]).toEqual([{ kind: 'cancelled' }, true]);
  const second = planQueue({ problem });
  FakeWorker.last.onerror?.();
  expect(await second.answer).toMatchObject({ kind: 'problem', message: expect.stringMatching(/Try again/) });
});
