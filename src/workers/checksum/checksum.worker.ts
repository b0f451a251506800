import { findChecksums } from '@/core/checksum';
import type { ChecksumReply, ChecksumRequest } from './protocol';

const post = (reply: ChecksumReply): void => self.postMessage(reply);

self.onmessage = ({ data: { images } }: MessageEvent<ChecksumRequest>): void => {
  const start = performance.now();
  const tookMs = (): number => performance.now() - start;
  try {
    const found = findChecksums(images, {
      onProgress: (done) => {
        post({ kind: 'progress', done, tookMs: tookMs() });
        return false;
      },
    });
    post({ kind: 'found', found, tookMs: tookMs() });
  } catch (error) {
    post({ kind: 'problem', message: `The search stopped: ${(error as Error).message}` });
  }
};
