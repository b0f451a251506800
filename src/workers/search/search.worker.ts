import { searchPlan } from '@/core/heat';
import { fail, ok } from '@/core/result';
import { serveTask } from '../serve';
import type { searchTask } from './task';

serveTask<typeof searchTask>({
  stopped: 'The search stopped',
  compute: ({ board, station, plan, goals }, tell) => {
    const found = searchPlan(board, station, plan, { goals, onProgress: (tried, most) => tell({ tried, most }) });
    return found ? ok(found) : fail('The search was given up.');
  },
});
