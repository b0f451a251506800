import { translatePlan } from '@/core/heat';
import { ok } from '@/core/result';
import { serveTask } from '../serve';
import type { translationTask } from './task';

serveTask<typeof translationTask>({
  stopped: 'The translation stopped',
  compute: ({ board, theirs, ours, plan }) => ok(translatePlan(board, theirs, ours, plan)),
});
