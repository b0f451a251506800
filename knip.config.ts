import type { KnipConfig } from 'knip';

/** What nobody imports goes. Entries are what somebody outside starts: routes, scripts, workers, tests, benchmarks. */
const config: KnipConfig = {
  entry: [
    'src/app/**/*.{ts,tsx}',
    'src/workers/**/*.worker.ts',
    'src/server-work/worker.ts',
    'bench/**/*.ts',
    'demo/build-*.ts',
    'e2e/*.{spec,shots}.ts',
    'scripts/*.{mjs,ts}',
  ],
  project: ['src/**/*.{ts,tsx}', 'demo/**/*.ts', 'bench/**/*.ts', 'e2e/**/*.ts', 'scripts/**/*.{mjs,ts}'],
  ignore: ['src/core/heat/assembly/**'],
  ignoreExportsUsedInFile: true,
  // Fonts are named by their files in the layout, the vision package is bundled for one benchmark by its path, the linter
  // starts the import rules itself, the mutation tester finds its runner by name.
  ignoreDependencies: [/^@fontsource/, 'dependency-cruiser'],
};

export default config;
