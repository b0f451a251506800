import type { Port } from '../board';
import type { ExpectedDraw, PackState } from './expect';
import { nameFor, type Segment, type SegmentName } from './name';

/** What was seen on one way of the plug: named segments, or one typed reading. */
export interface WayRecord {
  readonly segments: readonly Segment[];
}

/** A typed reading counts as one steady stretch. */
export function typedRecord(volts: number, amps: number, expected: ExpectedDraw): WayRecord {
  const figures = { startS: 0, endS: 60, volts, amps, rise: 0 };
  return { segments: [{ ...figures, name: nameFor(figures, expected) }] };
}

/** The patterns that decide the first half of a job. Source: common practice, no published source. */
export const PATTERNS = [
  'noConversation',
  'nothingAtAll',
  'oneSide',
  'idleWithoutPack',
  'charging',
  'deepFlat',
  'processorSide',
  'cannotSettle',
  'missingSensor',
  'unclear',
] as const;
export type Pattern = (typeof PATTERNS)[number];

export interface OutsideConclusion {
  readonly pattern: Pattern;
  readonly words: string;
  readonly reasons: readonly string[];
  /** Parts and things that it points to. */
  readonly implicates: readonly string[];
}

const WORDS: Record<Pattern, string> = {
  noConversation: 'No PD conversation',
  nothingAtAll: 'Nothing at all, both ways round',
  oneSide: 'Good one way round only: one CC side',
  idleWithoutPack: 'Full level, no current: normal with the pack out',
  charging: 'Healthy charging',
  deepFlat: 'About 0.1 A that stays: look again after 10 minutes',
  processorSide: 'Half an ampere at once: the processor’s side, not the port',
  cannotSettle: 'The boost cannot settle: often a bad configuration image',
  missingSensor: 'Restarts again and again: something the system requires is not connected',
  unclear: 'No known pattern',
};

const has = (way: WayRecord | undefined, ...names: SegmentName[]): boolean =>
  way?.segments.some((s) => names.includes(s.name)) ?? false;
const only = (way: WayRecord | undefined, ...names: SegmentName[]): boolean =>
  way !== undefined && way.segments.length > 0 && way.segments.every((s) => names.includes(s.name));
const GOOD: readonly SegmentName[] = ['ramp', 'hold', 'fast'];

/** Reads both plug ways together. One way alone is enough for the patterns that show on either. */
export function concludeOutside(
  port: Port,
  a: WayRecord | undefined,
  b: WayRecord | undefined,
  pack: PackState,
): OutsideConclusion {
  const ways = [a, b].filter((w) => w !== undefined);
  const pattern = patternOf(a, b, ways, pack);
  return { pattern, words: WORDS[pattern], reasons: reasonsOf(a, b), implicates: implicates(port, pattern, a) };
}

function patternOf(
  a: WayRecord | undefined,
  b: WayRecord | undefined,
  ways: readonly WayRecord[],
  pack: PackState,
): Pattern {
  if (ways.some((w) => has(w, 'swing'))) return 'cannotSettle';
  if (ways.some((w) => has(w, 'restart'))) return 'missingSensor';
  if (ways.some((w) => has(w, 'earlyLoad'))) return 'processorSide';
  const good = (w: WayRecord | undefined): boolean => has(w, ...GOOD);
  const silent = (w: WayRecord | undefined): boolean => only(w, 'nothing', 'noTalk');
  if (a && b && good(a) !== good(b) && (silent(a) || silent(b))) return 'oneSide';
  if (ways.length > 0 && ways.every((w) => only(w, 'nothing'))) return ways.length === 2 ? 'nothingAtAll' : 'unclear';
  if (ways.length > 0 && ways.every(silent)) return 'noConversation';
  if (ways.length > 0 && ways.every(good)) return 'charging';
  if (ways.some((w) => has(w, 'preCharge'))) return 'deepFlat';
  if (ways.some((w) => has(w, 'idle'))) return pack === 'out' ? 'idleWithoutPack' : 'unclear';
  return 'unclear';
}

function reasonsOf(a: WayRecord | undefined, b: WayRecord | undefined): string[] {
  const line = (name: string, way: WayRecord | undefined): string[] => {
    const last = way?.segments[way.segments.length - 1];
    if (!last) return [];
    const period = last.periodS === undefined ? '' : `, every ${last.periodS.toFixed(1)} s`;
    return [`${name} way: ${last.volts.toFixed(2)} V and ${last.amps.toFixed(2)} A${period}`];
  };
  return [...line('A', a), ...line('B', b)];
}

const imageOf = ({ imagePart }: Port): string[] => (imagePart === undefined ? [] : [imagePart]);

function implicates(port: Port, pattern: Pattern, a: WayRecord | undefined): string[] {
  switch (pattern) {
    case 'noConversation':
      return [port.controller, ...imageOf(port), ...port.controllerRails, port.id];
    case 'nothingAtAll':
      return ['fuse', port.id, port.controller];
    case 'oneSide': {
      const bad = has(a, ...GOOD) ? 'B' : 'A';
      return [...port.sides.find((s) => s.side === bad)!.path, port.controller];
    }
    case 'processorSide':
      return ['processor'];
    case 'cannotSettle':
      return port.imagePart === undefined ? [port.controller] : [port.imagePart];
    case 'missingSensor':
      return ['sensors', 'coils'];
    default:
      return [];
  }
}
