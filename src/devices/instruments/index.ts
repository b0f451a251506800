export { bench, type Connected } from './bench';
export { BenchSupply } from './bench-supply';
export { instrumentSchema, type InstrumentDefinition } from './definition';
export { SHIPPED } from './dialects';
export { takeSafely, type Source } from './interlock';
export { Multimeter } from './multimeter';
export { openNetworkLine } from './network-line';
export { openSerial, serialAsker } from './serial';
export { SimulatedMultimeter, SimulatedSupply } from './simulated-bench';
