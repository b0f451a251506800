export type { OutputState } from './answers';
export { SerialInstrument, serialAsker, type SerialPortLike } from './serial';
export { SimulatedMultimeter, SimulatedSupply, type BenchLoad } from './simulated-bench';
export { BenchSupply, Multimeter, type TextInstrument } from './text-instrument';
