import type { NetName, PartRef } from '../identities';
import { groundNet } from './query';
import type { Board, Part, PartKind } from './schema';

/** What a probe on a net sees: what hangs on it, what it passes through, and the chips at the end. */
export interface Behind {
  /** Parts from the net to ground or aside: arrays, clamps, capacitors. */
  readonly beside: readonly string[];
  /** Series parts that were passed. */
  readonly through: readonly string[];
  readonly chips: readonly string[];
  /** A series part on the way does not conduct. */
  readonly cut: boolean;
}

/** Kinds whose supply inputs load a net and whose inputs show a diode drop. */
export const CHIP_KINDS: ReadonlySet<PartKind> = new Set([
  'portController',
  'chargeController',
  'converter',
  'mux',
  'processor',
  'sensorHub',
  'flash',
]);
const BESIDE: ReadonlySet<PartKind> = new Set(['esdArray', 'clampDiode', 'capacitor']);

/** The pairs of nets that a series part joins, with the name of each line. */
function linesOf(part: Part): { line: string; nets: [string, string] }[] {
  const pair = (line: string, x: string, y: string): { line: string; nets: [string, string] }[] =>
    part.pins[x] && part.pins[y] ? [{ line, nets: [part.pins[x], part.pins[y]] }] : [];
  return part.kind === 'lineFilter' ? [...pair('a', '1', '2'), ...pair('b', '3', '4')] : pair('', '1', '2');
}

/**
 * Follows a net outward from a probe through series parts.
 * @param series kinds of part that are passed through.
 * @param conducts false for a line that is open; `line` is a, b, or empty.
 */
export function behindNet(
  board: Board,
  net: NetName,
  series: readonly PartKind[],
  conducts: (ref: PartRef, line: string) => boolean = () => true,
): Behind {
  const ground = groundNet(board);
  const nets = new Set([net]);
  const through = new Set<string>();
  let cut = false;
  const parts = board.parts.filter((p) => series.includes(p.kind));
  for (let grew = true; grew;) {
    grew = false;
    for (const part of parts) {
      for (const { line, nets: ends } of linesOf(part)) {
        const [x, y] = ends;
        if (nets.has(x) === nets.has(y) || x === ground || y === ground) continue;
        if (!conducts(part.ref, line)) {
          cut = true;
          continue;
        }
        through.add(part.ref);
        nets.add(x).add(y);
        grew = true;
      }
    }
  }
  const touching = board.parts.filter((p) => Object.values(p.pins).some((n) => nets.has(n)));
  const refs = (kinds: ReadonlySet<PartKind>): string[] => touching.filter((p) => kinds.has(p.kind)).map((p) => p.ref);
  return { beside: refs(BESIDE), through: [...through], chips: refs(CHIP_KINDS), cut };
}
