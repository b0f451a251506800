import { findChecksums } from '@/core/checksum';
import { ok } from '@/core/result';
import { serveTask } from '../serve';
import type { checksumTask } from './task';

serveTask<typeof checksumTask>({
  stopped: 'The search stopped',
  compute: (images, tell) =>
    ok(
      findChecksums(images, {
        onProgress: (share) => {
          tell(share);
          return false;
        },
      }),
    ),
});
