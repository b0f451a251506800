export { SimulatedProgrammer, type ProgrammerTrouble } from './simulated-programmer';
