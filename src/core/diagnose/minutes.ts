import { handiestPlace, partByRef, shieldOver, type Board, type Shield } from '../board';
import { OUTSIDE, OUTSIDE_THINGS, outsideFaultId, type OutsideThing } from './faults';
import type { Measurement } from './measurement';

/** What tests and work cost in minutes. All figures are engineering estimates; the interface shows them. */

/** How far the device must be opened for a test. */
export type Access = 'closed' | 'open' | 'out';

/** Minutes at the bench per test. Engineering estimates; the interface shows them. */
const MINUTES = {
  usb: 0.5,
  shape: 1.5,
  talk: 6,
  tester: 0.4,
  look: 1,
  pin: 0.3,
  joint: 0.15,
  drop: 0.3,
  ohm: 0.3,
  through: 0.3,
  volts: 0.7,
  image: 12,
} as const;

/** Minutes to try a known-good one. Engineering estimates. */
const SWAP_MINUTES: Record<OutsideThing, number> = { charger: 1, cable: 1, pack: 4 };

const CLOSED: ReadonlySet<Measurement['kind']> = new Set([
  'usb',
  'shape',
  'talk',
  'tester',
  'look',
  'pin',
  'drop',
  'works',
]);

/** Minutes to get from closed to open, and from open to board out. Engineering estimates. */
const OPEN_MINUTES: Record<Access, number> = { closed: 0, open: 6, out: 14 };

/** Minutes to take a part off or to replace it. Engineering estimates, by kind of part. */
export function workMinutes(board: Board, ref: string): number {
  const part = partByRef(board, ref);
  switch (part?.kind) {
    case 'capacitor':
    case 'resistor':
    case 'esdArray':
    case 'clampDiode':
      return 3;
    case 'fuse':
    case 'lineFilter':
    case 'crystal':
      return 5;
    case 'coil':
    case 'mosfet':
    case 'flash':
      return 8;
    case 'connector':
    case 'batteryConnector':
      return 25;
    case 'processor':
      return 45;
    case 'sensorHub':
      return 20;
    default:
      return 14;
  }
}

/** Minutes to get the board out from the present access state. */
export const openingMinutes = (access: Access): number => OPEN_MINUTES.out - OPEN_MINUTES[access];

/** Minutes to lay a wire past a cracked trace, or to clear and mend where a screw went through. Engineering estimate. */
const MEND_MINUTES = 25;

/** Minutes to mend what a fault needs: the image alone as `U9/image`, else the part off and a new one on. */
function repairMinutes(board: Board, need: string): number {
  if (need.endsWith('/image')) return MINUTES.image;
  const part = partByRef(board, need);
  if (!part) return MEND_MINUTES;
  // A shield over the part comes off for the work and goes back after it.
  return 2 * workMinutes(board, need) + 2 * (shieldOver(board, part)?.minutes ?? 0);
}

/** What a fault needs, in minutes, and whether the device must be opened for it. Needs are named as {@link needOf} does. */
export function workOf(board: Board, need: string): { minutes: number; onBoard: boolean } {
  const thing = OUTSIDE_THINGS.find((what) => outsideFaultId(what) === need);
  if (thing) return { minutes: SWAP_MINUTES[thing], onBoard: false };
  return need === OUTSIDE ? { minutes: 0, onBoard: false } : { minutes: repairMinutes(board, need), onBoard: true };
}

/** Minutes to see whether a repair cured: both plug ways, and every function of the board. Engineering estimate. */
export const proofMinutes = (board: Board): number =>
  board.functions.reduce((sum, f) => sum + f.minutes, 2 * MINUTES.usb);

const DEPTH: readonly Access[] = ['closed', 'open', 'out'];

/** The further opened of two states. */
export const deeper = (a: Access, b: Access): Access => (DEPTH.indexOf(b) > DEPTH.indexOf(a) ? b : a);

export function accessFor(m: Measurement): Access {
  if (CLOSED.has(m.kind) || (m.kind === 'swap' && m.what !== 'pack')) return 'closed';
  return m.kind === 'volts' || m.kind === 'swap' ? 'open' : 'out';
}

/** The shield that has to come off for a test; none where the test can be had without. */
export function shieldFor(board: Board, m: Measurement): Shield | undefined {
  switch (m.kind) {
    case 'ohm':
    case 'volts': {
      const net = m.kind === 'ohm' ? m.net : board.rails.find((r) => r.id === m.rail)!.net;
      const place = handiestPlace(board, net);
      return place && shieldOver(board, place);
    }
    case 'through':
    case 'lift':
    case 'image': {
      const part = partByRef(board, m.ref);
      return part && shieldOver(board, part);
    }
    default:
      return undefined;
  }
}

/** Minutes for one test from the present access state, opening and the shield over it included. */
export function testMinutes(board: Board, m: Measurement, access: Access, bare: ReadonlySet<string> = NONE): number {
  const opening = Math.max(0, OPEN_MINUTES[accessFor(m)] - OPEN_MINUTES[access]);
  const shield = shieldFor(board, m);
  return opening + (shield && !bare.has(shield.id) ? shield.minutes : 0) + ownMinutes(board, m);
}

const NONE: ReadonlySet<string> = new Set();

function ownMinutes(board: Board, m: Measurement): number {
  if (m.kind === 'works') return board.functions.find((f) => f.id === m.fn)?.minutes ?? 2;
  if (m.kind === 'swap') return SWAP_MINUTES[m.what];
  if (m.kind === 'lift') return workMinutes(board, m.ref) + MINUTES.ohm;
  return MINUTES[m.kind];
}
