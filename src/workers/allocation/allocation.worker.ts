import { allocate } from '@/core/allocation';
import { serveTask } from '../serve';
import { loadSolver } from './solver';
import type { allocationTask } from './task';

serveTask<typeof allocationTask>({
  stopped: 'The plan stopped',
  compute: async (problem) => allocate(problem, await loadSolver()),
});
