import { planClearing } from '@/core/clearing';
import { fail, ok } from '@/core/result';
import { serveTask } from '../serve';
import type { clearingTask } from './task';

serveTask<typeof clearingTask>({
  stopped: 'The plan for clearing stopped',
  compute: (request) => {
    const plan = planClearing(request);
    return plan ? ok(plan) : fail(`Expected a part of this board; got ${request.plan.partRef}.`);
  },
});
