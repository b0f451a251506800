/**
 * Bundles what the server's worker threads run: after the build of the pages and named after it, or to the file that is given.
 * Run with: node scripts/build-server-work.mjs [FILE]
 */
import { readFileSync, readdirSync, rmSync } from 'node:fs';
import path from 'node:path';
import { buildSync } from 'esbuild';

const FOLDER = '.next';

function fileOfBuild() {
  const id = readFileSync(path.join(FOLDER, 'BUILD_ID'), 'utf8').trim();
  for (const name of readdirSync(FOLDER)) if (name.startsWith('server-work-')) rmSync(path.join(FOLDER, name));
  return path.join(FOLDER, `server-work-${id}.mjs`);
}

buildSync({
  entryPoints: ['src/server-work/worker.ts'],
  outfile: process.argv[2] ?? fileOfBuild(),
  bundle: true,
  platform: 'node',
  format: 'esm',
  target: 'node20',
  logLevel: 'error',
  // Packages that ask for modules by `require` find one.
  banner: {
    js: `import { createRequire as makeRequire } from 'node:module'; const require = makeRequire(import.meta.url);`,
  },
});
