export { SimulatedLogger, twinOf, type LoggerDevice, type LoggerSample } from './logger';
export { SimulatedStation, type Blow } from './simulated-station';
