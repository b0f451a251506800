import base from './jest.config.mjs';

/** The short tests of the rules: what simulates heat, draws pictures or plays whole jobs is left out. */
const config = {
  ...base,
  maxWorkers: 1,
  roots: ['<rootDir>/src/core'],
  testPathIgnorePatterns: [
    '/node_modules/',
    '/src/core/(heat|inspect|allocation|checksum|calibration|clearing|usb|trace|netlist)/',
    '/src/core/job/assessment/(properties|traps|view|weighing)',
    '/src/core/diagnose/(?!measurements/)',
  ],
};

export default config;
