// Who may import whom. The picture in words is in docs/architecture.md.
const tests = '(\\.test\\.tsx?$|/tests/)';
const CORE_PACKAGES =
  '^node_modules/(zod|@date-fns/tz|@noble/hashes|papaparse|@types/papaparse|ml-matrix|yalps|image-js|fflate|s-expression|saxes|ts-fsrs)/';

module.exports = {
  forbidden: [
    {
      name: 'core-is-pure',
      comment: 'The core imports itself and allow-listed pure packages, nothing else.',
      severity: 'error',
      from: { path: '^src/core/', pathNot: tests },
      to: { pathNot: ['^src/core/', CORE_PACKAGES] },
    },
    {
      name: 'capability-by-its-index',
      comment: 'A capability is entered through its index.ts.',
      severity: 'error',
      from: { path: '^src/core/([^/]+)/' },
      to: { path: '^src/core/([^/]+)/', pathNot: ['^src/core/$1/', '^src/core/[^/]+/index\\.ts$'] },
    },
    {
      name: 'core-by-its-index-from-outside',
      severity: 'error',
      from: { path: '^(src/(?!core/)|demo/|bench/|e2e/)' },
      to: { path: '^src/core/[^/]+/', pathNot: ['^src/core/[^/]+/index\\.ts$', '^src/core/[^/]+/tests/'] },
    },
    { name: 'no-circles', severity: 'error', from: {}, to: { circular: true } },
    {
      name: 'workers-use-core-and-devices-only',
      severity: 'error',
      from: { path: '^src/workers/' },
      to: { path: '^src/(?!core/|devices/|workers/)' },
    },
    {
      name: 'devices-use-core-only',
      severity: 'error',
      from: { path: '^src/devices/', pathNot: tests },
      to: { path: '^src/(?!core/|devices/)' },
    },
    {
      name: 'db-uses-core-only',
      severity: 'error',
      from: { path: '^src/db/' },
      to: { path: '^src/(?!core/|db/)' },
    },
    {
      name: 'application-knows-no-screen',
      comment: 'Use cases call the core and the database; they know neither React nor Next.',
      severity: 'error',
      from: { path: '^src/application/', pathNot: tests },
      to: {
        path: [
          '^src/(?!core/|db/|devices/|application/|server-work/)',
          '^node_modules/(react|react-dom|next|@chakra-ui)/',
        ],
      },
    },
    {
      name: 'server-work-is-the-core-in-threads',
      comment: 'What a thread does comes and goes as plain data: it knows no database.',
      severity: 'error',
      from: { path: '^src/server-work/', pathNot: tests },
      to: { path: '^src/(?!core/|server-work/)' },
    },
    {
      name: 'screens-reach-the-application-by-queries-and-actions',
      comment: 'Types may be named anywhere.',
      severity: 'error',
      from: { path: '^src/(features|ui|drawings)/', pathNot: ['/(queries|actions)\\.ts$', tests] },
      to: { path: '^src/application/', dependencyTypesNot: ['type-only'] },
    },
    {
      name: 'ui-knows-no-domain',
      comment: 'How figures, days and money are written is no domain.',
      severity: 'error',
      from: { path: '^src/ui/' },
      to: { path: '^src/(?!ui/|core/units/)' },
    },
    {
      name: 'drawings-use-core-and-ui',
      severity: 'error',
      from: { path: '^src/drawings/' },
      to: { path: '^src/(?!core/|ui/|drawings/)' },
    },
    {
      name: 'no-feature-imports-another',
      comment: 'Tests may walk a job through several features.',
      severity: 'error',
      from: { path: '^src/features/([^/]+)/', pathNot: tests },
      to: { path: '^src/features/([^/]+)/', pathNot: '^src/features/$1/' },
    },
    {
      name: 'features-reach-db-by-queries-and-actions',
      severity: 'error',
      from: { path: '^src/features/', pathNot: ['/(queries|actions)\\.ts$', tests] },
      to: { path: '^src/db/' },
    },
    {
      name: 'features-not-app-or-cli',
      severity: 'error',
      from: { path: '^src/features/' },
      to: { path: '^src/(app|cli)/' },
    },
    {
      name: 'app-composes-features',
      severity: 'error',
      from: { path: '^src/app/' },
      to: { path: '^src/(core|db|workers|devices|cli|drawings|application)/' },
    },
    {
      name: 'cli-uses-core-db-and-devices',
      comment: 'And a solver that a worker wraps: the same core call runs without the worker.',
      severity: 'error',
      from: { path: '^src/cli/' },
      to: { path: '^src/(?!core/|db/|devices/|cli/|workers/[^/]+/solver\\.ts$)' },
    },
    {
      name: 'nothing-imports-a-test',
      severity: 'error',
      from: { pathNot: tests },
      to: { path: '\\.test\\.tsx?$' },
    },
    { name: 'resolvable', severity: 'error', from: {}, to: { couldNotResolve: true } },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.json' },
    enhancedResolveOptions: {
      exportsFields: ['exports'],
      conditionNames: ['import', 'require', 'node', 'default', 'types'],
    },
  },
};
