import { reduceFamily } from '@/core/heat';
import { ok } from '@/core/result';
import { serveTask } from '../serve';
import type { reducedTask } from './task';

serveTask<typeof reducedTask>({
  stopped: 'The reduced model failed',
  compute: ({ board, station, plan }) => ok(reduceFamily(board, station, plan)),
});
