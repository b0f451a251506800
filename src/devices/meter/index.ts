export type { MeterDevice, MeterSample } from './meter';
export { SCENES, SimulatedMeter, sceneSegments, type Scene } from './simulated';
