/**
 * Mutation tests over the rules and arithmetic of the core, with a short list of tests of their own so that a mutant takes
 * seconds. Not part of `npm test`: run with `npm run mutation`, or for one capability with `npm run mutation -- -m 'src/core/proof/**'`.
 */
const capabilities = {
  proof: ['src/core/proof/*.ts'],
  joints: ['src/core/joints/{alloys,ball,stencil,uniformity,paste,centre,cleaning}.ts'],
  parts: ['src/core/parts/{relations,rules,fit,straps,moisture,evidence}.ts'],
  stock: ['src/core/stock/{check,state,lines}.ts'],
  units: ['src/core/units/*.ts'],
  'image rules': ['src/core/image/{judge,transplant,regions}.ts'],
  'event fold': ['src/core/job/log/{fold,fields,stored,log,soak}.ts', 'src/core/job/decide/decide.ts'],
  grammar: [
    'src/core/command-line/*.ts',
    'src/core/job/entry/*.ts',
    'src/core/diagnose/measurements/{line-value,point-line}.ts',
  ],
};

export default {
  testRunner: 'jest',
  jest: { configFile: 'jest.mutation.config.mjs', enableFindRelatedTests: true },
  coverageAnalysis: 'perTest',
  mutate: [...Object.values(capabilities).flat(), '!src/core/**/*.test.ts', '!src/core/**/index.ts'],
  reporters: ['clear-text', 'json'],
  clearTextReporter: { logTests: false, reportTests: false },
  jsonReporter: { fileName: 'node_modules/.cache/mutation/report.json' },
  tempDirName: 'node_modules/.cache/mutation/work',
  concurrency: 2,
  timeoutMS: 10_000,
  ignoreStatic: true,
};
