/** What is mutated, and the short list of tests that must notice: each capability with its own. */
export const CAPABILITIES = {
  units: { mutate: ['src/core/units/*.ts'], tests: ['src/core/units/*'] },
  grammar: {
    mutate: ['src/core/command-line/*.ts', 'src/core/job/entry/*.ts'],
    tests: ['src/core/command-line/*', 'src/core/job/entry/*'],
  },
  'event fold': {
    mutate: ['src/core/job/log/*.ts', 'src/core/job/decide/*.ts', 'src/core/stored/*.ts'],
    tests: [
      'src/core/job/log/{fold,fields,origin,soak,summary,old-logs}',
      'src/core/job/decide/*',
      'src/core/stored/*',
    ],
  },
  stock: { mutate: ['src/core/stock/{check,state,lines,stored}.ts'], tests: ['src/core/stock/*'] },
  proof: { mutate: ['src/core/proof/*.ts'], tests: ['src/core/proof/{proof,gates,rails,order,suspects,power-up}'] },
  joints: { mutate: ['src/core/joints/*.ts'], tests: ['src/core/joints/*'] },
  parts: { mutate: ['src/core/parts/*.ts'], tests: ['src/core/parts/*'] },
  'image rules': { mutate: ['src/core/image/{judge,merge,propose-transplant}.ts'], tests: ['src/core/image/*'] },
};

/** The capability that a run is about; the first where none is named. */
export const capabilityOf = (name = process.env.MUTATION_CAPABILITY) =>
  CAPABILITIES[name] ?? Object.values(CAPABILITIES)[0];
