import { findChecksums } from '../../src/core/checksum';
import { seededRandom } from '../../src/core/math';

const MIB = 2 ** 20;

/** Answers what one image takes, and two, ms. */
self.onmessage = (): void => {
  const images = [1, 2].map((seed) => {
    const random = seededRandom(seed);
    return Uint8Array.from({ length: MIB }, () => 256 * random());
  });
  const tookMs = [1, 2].map((count) => {
    const start = performance.now();
    findChecksums(images.slice(0, count));
    return performance.now() - start;
  });
  self.postMessage(tookMs);
};
