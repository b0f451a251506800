import { partByRef, type Board, type PartKind } from '../board';
import { workOf } from './minutes';
import type { Practice } from './practice';

/**
 * What a new part costs, in the shop's money. Engineering estimates of what such parts cost a repair shop in small lots;
 * the bench sets its own.
 */
export const PART_PRICE: Readonly<Record<PartKind, number>> = {
  portController: 9,
  chargeController: 7,
  mux: 6,
  flash: 2,
  converter: 4,
  processor: 60,
  sensorHub: 12,
  connector: 4,
  batteryConnector: 3,
  fuse: 0.5,
  lineFilter: 0.5,
  esdArray: 0.5,
  clampDiode: 0.5,
  mosfet: 1,
  coil: 1,
  capacitor: 0.1,
  resistor: 0.1,
  crystal: 1,
};

/** Chance that taking a part off and putting a new one on harms the board for good. Engineering estimates. */
export const HARM: Readonly<Record<PartKind, number>> = {
  portController: 0.02,
  chargeController: 0.02,
  mux: 0.02,
  flash: 0.01,
  converter: 0.02,
  processor: 0.15,
  sensorHub: 0.05,
  connector: 0.03,
  batteryConnector: 0.02,
  fuse: 0.002,
  lineFilter: 0.005,
  esdArray: 0.005,
  clampDiode: 0.005,
  mosfet: 0.005,
  coil: 0.005,
  capacitor: 0.002,
  resistor: 0.002,
  crystal: 0.005,
};
/** The same for a wire laid past a trace, or work where a screw went through. Engineering estimate. */
const HARM_OF_MENDING = 0.05;

/** What an hour at the bench is worth, in the shop's money. Engineering estimate. */
export const HOUR_PRICE = 60;
/** What a device is worth to its owner where the story does not say. Engineering estimate. */
export const DEVICE_WORTH = 300;

export interface WorkCost {
  readonly minutes: number;
  readonly onBoard: boolean;
  /** New parts, in the shop's money. */
  readonly price: number;
  /** Chance that the board is harmed for good. */
  readonly harm: number;
  /** Everything in minutes: the work, and what parts and harm are worth at the bench's hour. */
  readonly weighedMinutes: number;
}

/** What a need costs in minutes, money and risk, and all three as minutes. Needs are named as `needOf` does. */
export function workCost(board: Board, need: string, practice: Practice, worth = DEVICE_WORTH): WorkCost {
  const { minutes, onBoard } = workOf(board, need);
  const part = need.endsWith('/image') ? undefined : partByRef(board, need);
  const price = part ? (practice.prices?.parts?.[part.kind] ?? PART_PRICE[part.kind]) : 0;
  const harm = part ? HARM[part.kind] : onBoard && !need.endsWith('/image') ? HARM_OF_MENDING : 0;
  const perMinute = (practice.prices?.hour ?? HOUR_PRICE) / 60;
  return { minutes, onBoard, price, harm, weighedMinutes: minutes + (price + harm * worth) / perMinute };
}

/** What so many weighed minutes come to, in the shop's money. */
export const priceOf = (weighedMinutes: number, practice: Practice): number =>
  (weighedMinutes * (practice.prices?.hour ?? HOUR_PRICE)) / 60;
