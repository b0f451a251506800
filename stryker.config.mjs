import { capabilityOf } from './scripts/mutation-capabilities.mjs';

/** Mutation tests of one capability of the core with its own tests: `npm run mutation` runs them in turn. */
export default {
  // The suite's own runner starts anew for each mutant, two to three seconds each; this one stays (measured, ADR 24).
  testRunner: 'vitest',
  vitest: { configFile: 'vitest.mutation.config.mjs', related: false },
  coverageAnalysis: 'perTest',
  mutate: [...capabilityOf().mutate, '!src/core/**/*.test.ts', '!src/core/**/index.ts'],
  reporters: ['json'],
  jsonReporter: { fileName: 'node_modules/.cache/mutation/report.json' },
  tempDirName: '.mutation',
  disableTypeChecks: false,
  concurrency: 2,
  timeoutMS: 10_000,
  // Tables of constants are data: what changes them is a change of a source, not of a rule.
  ignoreStatic: true,
};
