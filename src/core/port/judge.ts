import type { NetName } from '../identities';
import { behindNet, groundNet, type Board } from '../board';
import { predictionInterval, type Interval, type ReferenceStats } from '../reference';
import { formatDrop } from '../units';
import type { PortPin } from './pins';

/** A diode-mode reading at one contact, ground lead reversed as usual. */
export type PinValue = { readonly kind: 'figure'; readonly value: number } | { readonly kind: 'open' };

export interface PinVerdict {
  readonly state: 'good' | 'bad';
  /** In a few words: `normal`, `shorted to ground`. */
  readonly label: string;
  /** What the verdict rests on: where a good board reads, and how its twin does. */
  readonly rests: readonly string[];
  /** What stands behind the contact on this board, nearest first. */
  readonly behind: readonly string[];
}

/** Without references a good pin lies this close to the board file's value, V. Engineering estimate. */
const NORMAL_V = 0.03;
/** Twin pins agree within a few millivolts (common practice, no published source). */
export const TWIN_V = 0.008;
/** Below this a drop is a short; below the second it has the wrong sign. Common practice. */
export const SHORTED_V = 0.06;
export const WRONG_SIGN_V = -0.02;
/** A ground contact reads the leads alone, V. Common practice. */
export const GROUND_V = 0.015;

/** Drops of nodes behind coils and fuses, once for each net. */
const behindSeries = new WeakMap<Board, Map<string, number | undefined>>();

/** The drop that the board file gives a net; for a node behind a coil or a fuse that of what lies on its other side. */
export function normalDropV(board: Board, net: NetName): number | undefined {
  const { diodeV, role } = board.nets[net];
  if (diodeV !== undefined || role === 'ground') return diodeV;
  let known = behindSeries.get(board);
  if (!known) behindSeries.set(board, (known = new Map<string, number | undefined>()));
  if (!known.has(net)) known.set(net, dropBehindSeries(board, net));
  return known.get(net);
}

function dropBehindSeries(board: Board, net: NetName): number | undefined {
  for (const { kind, pins } of board.parts) {
    if (kind !== 'coil' && kind !== 'fuse') continue;
    const ends = Object.values(pins);
    const other = ends.includes(net) ? ends.find((n) => n !== net && board.nets[n].diodeV !== undefined) : undefined;
    if (other !== undefined) return board.nets[other].diodeV;
  }
  return undefined;
}

/** Where a good board of this kind reads, and on what that rests. */
export function expectedDrop(
  board: Board,
  pin: { readonly net?: NetName },
  stats?: ReferenceStats,
): (Interval & { label: string }) | undefined {
  const interval = stats && predictionInterval(stats);
  if (interval)
    return {
      ...interval,
      label: `${stats.n} good boards: ${interval.low.toFixed(3)} to ${formatDrop(interval.high)}`,
    };
  const normal = pin.net === undefined ? undefined : normalDropV(board, pin.net);
  return normal === undefined
    ? undefined
    : around(normal, (pin.net !== undefined && board.nets[pin.net].diodeWithinV) || 0);
}

function around(normalV: number, withinV: number): Interval & { label: string } {
  const [low, high] = [
    Math.max(SHORTED_V, normalV - Math.max(NORMAL_V, withinV)),
    normalV + Math.max(NORMAL_V, withinV),
  ];
  const label =
    withinV > NORMAL_V
      ? `not known yet: ${formatDrop(low)} to ${formatDrop(high)}`
      : `board file: near ${formatDrop(normalV)}`;
  return { low, high, label };
}

/** Judges one contact against good boards, its twin and what the board file says. */
export function judgePin(
  board: Board,
  pin: PortPin,
  value: PinValue,
  twin?: PinValue,
  stats?: ReferenceStats,
): PinVerdict {
  const good = (label: string, rests: string[] = []): PinVerdict => ({ state: 'good', label, rests, behind: [] });
  const bad = (label: string, rests: string[] = []): PinVerdict => ({
    state: 'bad',
    label,
    rests,
    behind: behindPin(board, pin),
  });
  if (pin.net === undefined)
    return value.kind === 'open' ? good('open by design') : bad('not open, though nothing is joined here: a bridge?');
  if (pin.net === groundNet(board))
    return value.kind === 'figure' && Math.abs(value.value) <= GROUND_V
      ? good('ground')
      : bad('ground contact does not reach ground');
  const expected = expectedDrop(board, pin, stats);
  const rests = expected ? [expected.label] : [];
  const twinText = twinWords(pin, value, twin);
  if (twinText) rests.push(twinText);
  if (value.kind === 'open')
    return expected ? bad('open: the contact, its joint or the way to the chip', rests) : good('open', rests);
  if (value.value < WRONG_SIGN_V) return bad('wrong sign: the chip behind is damaged, or the leads are swapped', rests);
  if (value.value < SHORTED_V) return bad('shorted to ground', rests);
  if (expected && value.value < expected.low) return bad('low: something behind it leaks', rests);
  if (expected && value.value > expected.high) return bad('high: a path behind it is missing', rests);
  // References of this very point know of its difference already.
  const referenced = stats !== undefined && stats.n > 1;
  if (!referenced && offTwinV(board, pin, value.value, twin) > TWIN_V) return bad('its twin reads otherwise', rests);
  return good('normal', rests);
}

/** How much a reading differs from its twin's, beyond what the board file says of the two. */
function offTwinV(board: Board, pin: PortPin, value: number, twin: PinValue | undefined): number {
  if (twin?.kind !== 'figure' || pin.net === undefined || pin.twinNet === undefined) return 0;
  const normal = board.nets[pin.net].diodeV;
  const twinNormal = board.nets[pin.twinNet].diodeV;
  if (normal === undefined || twinNormal === undefined) return 0;
  return Math.abs(value - twin.value - (normal - twinNormal));
}

function twinWords(pin: PortPin, value: PinValue, twin?: PinValue): string | undefined {
  if (!twin) return undefined;
  if (twin.kind === 'open') return `twin ${pin.twin}: open`;
  if (value.kind === 'open') return `twin ${pin.twin}: ${formatDrop(twin.value)}`;
  const differenceMv = Math.round((value.value - twin.value) * 1000);
  return differenceMv === 0
    ? `twin ${pin.twin}: the same`
    : `twin ${pin.twin}: ${formatDrop(twin.value)}, ${Math.abs(differenceMv)} mV ${differenceMv > 0 ? 'lower' : 'higher'}`;
}

/** What stands behind a contact: what hangs on it, what it passes, and the chip at the end. */
export function behindPin(board: Board, pin: PortPin): string[] {
  if (pin.net === undefined || pin.net === groundNet(board)) return [];
  const { beside, through, chips } = behindNet(board, pin.net, ['lineFilter', 'fuse']);
  return [...through, ...beside, ...chips];
}
