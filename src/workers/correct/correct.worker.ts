import { ok } from '@/core/result';
import { correctRun } from '@/core/run';
import { serveTask } from '../serve';
import type { correctTask } from './task';

serveTask<typeof correctTask>({
  stopped: 'The correction stopped',
  compute: ({ now, sight }) => ok(correctRun(now, sight)),
});
