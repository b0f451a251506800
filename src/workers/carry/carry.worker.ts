import { ok } from '@/core/result';
import { carryOf } from '@/core/sketch';
import { serveTask } from '../serve';
import type { carryTask } from './task';

serveTask<typeof carryTask>({
  stopped: 'Weighing what is known stopped',
  compute: (board) => ok(carryOf(board)),
});
