import { execFileSync } from 'node:child_process';
import path from 'node:path';
import { buildSync } from 'esbuild';

/**
 * Runs a benchmark as a browser would run its code: bundled into one file, in a process of its own. The loader that runs
 * TypeScript directly makes loops over typed arrays half as slow again (measured).
 */
export function runBundled(file: string): void {
  const outfile = path.resolve('bench/build', `${path.basename(file, '.ts')}.mjs`);
  buildSync({
    ...{ entryPoints: [path.resolve('bench', file)], outfile, bundle: true, platform: 'node', format: 'esm' },
    logLevel: 'error',
    // Packages that ask for modules by `require` find one.
    banner: { js: `import { createRequire } from 'node:module'; const require = createRequire(import.meta.url);` },
  });
  execFileSync(process.execPath, [outfile], { stdio: 'inherit' });
}
