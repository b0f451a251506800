export { SerialInstrument, serialAsker, type SerialPortLike } from './serial';
export { SimulatedMultimeter, SimulatedSupply, type BenchLoad, type Probed } from './simulated-bench';
export { BenchSupply, InstrumentProblem, Multimeter, type TextInstrument } from './text-instrument';
