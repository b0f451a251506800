import base from './jest.config.mjs';
import { capabilityOf } from './scripts/mutation-capabilities.mjs';

/** The tests of the capability that is mutated, and no others. */
const config = { ...base, maxWorkers: 1, roots: capabilityOf().tests.map((folder) => `<rootDir>/${folder}`) };

export default config;
