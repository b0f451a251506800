import { execFileSync } from 'node:child_process';
import path from 'node:path';
import { Worker } from 'node:worker_threads';
import { buildSync } from 'esbuild';

/**
 * One file of all that a benchmark imports, as a browser gets its code: the loader that runs TypeScript directly makes
 * loops over typed arrays half as slow again (measured). Gives the path of the file.
 */
function bundle(file: string): string {
  const outfile = path.resolve('bench/build', `${path.basename(file, '.ts')}.mjs`);
  buildSync({
    ...{ entryPoints: [path.resolve('bench', file)], outfile, bundle: true, platform: 'node', format: 'esm' },
    logLevel: 'error',
    // Too large to bundle: loaded as it lies.
    external: ['@techstark/opencv-js'],
    // Packages that ask for modules by `require` find one.
    banner: {
      js: `import { createRequire as makeRequire } from 'node:module'; const require = makeRequire(import.meta.url);`,
    },
  });
  return outfile;
}

/** A path under `bench` as the code of a worker in a browser. */
export function bundledForBrowser(file: string): string {
  const built = buildSync({
    ...{ entryPoints: [path.resolve('bench', file)], bundle: true, format: 'iife', write: false },
    logLevel: 'error',
  });
  return built.outputFiles[0].text;
}

/** Runs a benchmark, a path under `bench`, in a process of its own. */
export function runBundled(file: string): void {
  execFileSync(process.execPath, [bundle(file)], { stdio: 'inherit' });
}

/** Runs a path under `bench` as a worker and gives the one message it sends. */
export function inWorker<T>(file: string, workerData: unknown): Promise<T> {
  const worker = new Worker(bundle(file), { workerData });
  return new Promise<T>((resolve, reject) => worker.once('message', resolve).once('error', reject));
}
