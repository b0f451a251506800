import { flyAir } from '@/core/drill';
import { ok } from '@/core/result';
import { serveTask } from '../serve';
import type { flightTask } from './task';

serveTask<typeof flightTask>({
  stopped: 'The flight stopped',
  compute: ({ board, drill, flight, untilS }) => ok(flyAir(board, drill, flight, untilS)),
});
