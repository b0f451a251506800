import { fileURLToPath } from 'node:url';
import { capabilityOf } from './scripts/mutation-capabilities.mjs';

/** The tests of the capability that is mutated, and no others; `describe` and `expect` stand as globals as the test runner has them. */
export default {
  resolve: { alias: { '@': fileURLToPath(new URL('./src', import.meta.url)) } },
  test: {
    globals: true,
    environment: 'node',
    include: capabilityOf().tests.map((test) => `${test}.test.ts`),
  },
};
