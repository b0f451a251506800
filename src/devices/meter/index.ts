export type { MeterDevice, MeterSample } from './meter';
export { SCENES, SimulatedMeter, type Scene } from './simulated';
