import { Worker } from 'node:worker_threads';

/** Runs a TypeScript file as a worker and gives the one message it sends. */
export function inWorker<T>(file: URL, workerData: unknown): Promise<T> {
  const boot = `import('tsx/esm/api').then(({ register }) => (register(), import(${JSON.stringify(file.href)})));`;
  const worker = new Worker(boot, { eval: true, workerData });
  return new Promise<T>((resolve, reject) => worker.once('message', resolve).once('error', reject));
}
