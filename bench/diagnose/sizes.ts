import { note, ratio, section } from '../print';
import { inWorker } from '../bundled';
import type { SizeResult } from './sizes.worker';

/** Boards of real sizes, each in a process of its own: the first view, a reading into belief and next step, memory. */
export async function benchSizes(): Promise<void> {
  section(
    'Boards of real sizes: one reading into belief, suspects and next step (wanted: 150 ms, the first 2 s, 400 MB)',
  );
  const results: SizeResult[] = [];
  for (const parts of [80, 300, 800, 1500]) {
    const got = await inWorker<SizeResult>('diagnose/sizes.worker.ts', parts);
    results.push(got);
    note(
      `${parts} parts: ${got.faults} faults, ${got.classes} classes, ${got.tests} tests; first ${got.firstMs.toFixed(0)} ms, a reading ${got.readingMs.toFixed(0)} ms, ${got.megabytes.toFixed(0)} MB`,
    );
  }
  for (let k = 1; k < results.length; k++) {
    const [a, b] = [results[k - 1], results[k]];
    ratio(
      `growth per class, ${results[k].parts} parts`,
      Math.log(b.readingMs / a.readingMs) / Math.log(b.classes / a.classes),
      'at most 1.3',
    );
  }
}
