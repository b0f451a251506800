import { partByRef, shieldOver, type Board } from '../board';
import { PART_KIND_DEFINITIONS, partWork, type RepairTarget } from './faults';
import { IMAGE_MINUTES } from './measurements/image-check';
import { SWAP_MINUTES } from './measurements/known-good-swap';
import { usbMeter } from './measurements/usb-meter';
import type { Practice } from './practice';

/** Minutes to lay a wire past a cracked trace, or to clear and mend where a screw went through. Engineering estimate. */
const MEND_MINUTES = 25;
/** Chance that a wire laid past a trace, or work where a screw went through, harms the board for good. Engineering estimate. */
const MEND_HARM = 0.05;

/** Minutes to touch up the joints of a part or flow them again, and the chance that it harms. Engineering estimates. */
const JOINTS_MINUTES = 6;
const JOINTS_HARM = 0.005;
/** Minutes to clean a port's contacts. Engineering estimate. */
const CLEAN_MINUTES = 5;
/** Minutes to restore what a device runs on. Engineering estimate. */
const RESTORE_MINUTES = 25;
/** What an open-ended search takes, or sending the board on, minutes. Engineering estimate. */
const SEARCH_MINUTES = 90;

/** What an hour at the bench is worth, in the shop's money. Engineering estimate. */
export const HOUR_PRICE = 60;
/** What a device is worth to its owner where the story does not say. Engineering estimate. */
export const DEVICE_WORTH = 300;

/** What mending a target takes, and whether the device must be opened for it. */
export function repairMinutes(board: Board, target: RepairTarget): { minutes: number; onBoard: boolean } {
  switch (target.kind) {
    case 'nothing':
      return { minutes: 0, onBoard: false };
    case 'outside':
      return { minutes: SWAP_MINUTES[target.what], onBoard: false };
    case 'software':
      return { minutes: RESTORE_MINUTES, onBoard: false };
    case 'unlisted':
      return { minutes: SEARCH_MINUTES, onBoard: true };
    case 'contacts':
      return { minutes: CLEAN_MINUTES, onBoard: false };
    case 'joints':
      return { minutes: JOINTS_MINUTES, onBoard: true };
    case 'image':
      return { minutes: IMAGE_MINUTES, onBoard: true };
    case 'rail':
    case 'screw':
      return { minutes: MEND_MINUTES, onBoard: true };
    case 'part': {
      const part = partByRef(board, target.ref);
      // A shield over the part comes off for the work and goes back after it.
      const shieldMinutes = part ? (shieldOver(board, part)?.minutes ?? 0) : 0;
      return { minutes: 2 * partWork(board, target.ref).minutes + 2 * shieldMinutes, onBoard: true };
    }
  }
}

/** Minutes to see whether a repair cured: both plug ways, and every function of the board. Engineering estimate. */
export function proofMinutes(board: Board): number {
  const [port] = board.ports;
  const bothWays = 2 * usbMeter.minutes(board, { kind: 'usbMeter', port: port.id, side: 'A' });
  return board.functions.reduce((sum, f) => sum + f.minutes, bothWays);
}

export interface RepairCost {
  readonly minutes: number;
  readonly onBoard: boolean;
  /** New parts, in the shop's money. */
  readonly price: number;
  /** Chance that the board is harmed for good. */
  readonly harm: number;
  /** Everything in minutes: the work, and what parts and harm are worth at the bench's hour. */
  readonly weighedMinutes: number;
}

/** What mending a target costs in minutes, money and risk, and all three as minutes. */
export function repairCost(board: Board, target: RepairTarget, practice: Practice, worth = DEVICE_WORTH): RepairCost {
  const { minutes, onBoard } = repairMinutes(board, target);
  const { price, harm } = priceAndHarm(board, target, practice);
  const perMinute = (practice.prices?.hour ?? HOUR_PRICE) / 60;
  return { minutes, onBoard, price, harm, weighedMinutes: minutes + (price + harm * worth) / perMinute };
}

function priceAndHarm(board: Board, target: RepairTarget, practice: Practice): { price: number; harm: number } {
  if (target.kind === 'rail' || target.kind === 'screw') return { price: 0, harm: MEND_HARM };
  if (target.kind === 'joints') return { price: 0, harm: JOINTS_HARM };
  const part = target.kind === 'part' ? partByRef(board, target.ref) : undefined;
  if (!part) return { price: 0, harm: 0 };
  const { work } = PART_KIND_DEFINITIONS[part.kind];
  return { price: practice.prices?.parts?.[part.kind] ?? work.price, harm: work.harm };
}

/** What so many weighed minutes come to, in the shop's money. */
export const priceOf = (weighedMinutes: number, practice: Practice): number =>
  (weighedMinutes * (practice.prices?.hour ?? HOUR_PRICE)) / 60;
