export { SimulatedLogger, twinOf, type LoggerSample } from './logger';
export { SimulatedStation, type Blow } from './simulated-station';
