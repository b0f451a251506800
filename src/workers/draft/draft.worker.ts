import { draftFromFile } from '@/core/import';
import { ok } from '@/core/result';
import { serveTask } from '../serve';
import type { draftTask } from './task';

serveTask<typeof draftTask>({
  stopped: 'Reading the board stopped',
  compute: (file) => ok(draftFromFile(file)),
});
