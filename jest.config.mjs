/** Unit tests run in plain Node: the core needs no browser. */
const config = {
  testEnvironment: 'node',
  roots: ['<rootDir>/src', '<rootDir>/demo'],
  modulePathIgnorePatterns: ['<rootDir>/.next'],
  moduleNameMapper: {
    '^@/(.*)$': '<rootDir>/src/$1',
    '^server-only$': '<rootDir>/src/features/tests/empty-module.ts',
  },
  // These ship as modules only.
  transformIgnorePatterns: ['/node_modules/(?!(d3-[a-z-]+)/)'],
  transform: {
    '^.+\\.m?[tj]sx?$': [
      '@swc/jest',
      { jsc: { parser: { syntax: 'typescript', tsx: true }, target: 'es2022', transform: { react: { runtime: 'automatic' } } }, module: { type: 'commonjs' } },
    ],
  },
};

export default config;
