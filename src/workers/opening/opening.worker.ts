import { openingPlan } from '@/core/heat';
import { ok } from '@/core/result';
import { serveTask } from '../serve';
import type { openingTask } from './task';

serveTask<typeof openingTask>({
  stopped: 'The look for a plan stopped',
  compute: ({ board, station, plan, goals }, tell) => ok(openingPlan(board, station, plan, { goals, onBetter: tell })),
});
