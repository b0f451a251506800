/** Unit tests run in plain Node: the core needs no browser. */
const config = {
  testEnvironment: 'node',
  // Long enough for a busy machine: no test is about time.
  testTimeout: 60_000,
  // On two cores the default is one worker: with both the whole takes half as long (measured).
  maxWorkers: '100%',
  globalSetup: '<rootDir>/scripts/jest-run.mjs',
  roots: ['<rootDir>/src', '<rootDir>/demo'],
  modulePathIgnorePatterns: ['<rootDir>/.next'],
  moduleNameMapper: {
    '^@/(.*)$': '<rootDir>/src/$1',
    '^server-only$': '<rootDir>/src/features/tests/empty-module.ts',
  },
  // Globals are looked up slowly in the tests' own context: without this the solvers' tests take twice as long (measured).
  sandboxInjectedGlobals: [
    ...['Math', 'Number', 'String', 'Object', 'Array', 'Map', 'Set', 'Infinity'],
    ...['Float32Array', 'Float64Array', 'Uint8Array', 'Uint16Array', 'Int32Array'],
  ],
  // These ship as modules only.
  transformIgnorePatterns: [
    '/node_modules/(?!(d3-[a-z-]+|image-js|image-type|fast-[a-z]+|tiff|iobuffer|ml-[a-z0-9-]+|is-any-array)/)',
  ],
  transform: {
    '^.+\\.m?[tj]sx?$': [
      '@swc/jest',
      {
        jsc: {
          parser: { syntax: 'typescript', tsx: true },
          target: 'es2022',
          transform: { react: { runtime: 'automatic' } },
        },
        module: { type: 'commonjs' },
      },
    ],
  },
};

export default config;
