import { partByRef, type Board } from '../board';
import type { Belief } from './belief';
import { isGone, type Fault } from './faults';
import { testMinutes, workMinutes, type Access } from './measurement';

export interface Repair {
  /** The part that is replaced, or whose image is rewritten; the first of two. */
  readonly ref: string;
  readonly words: string;
  /** The second part, where two are replaced together. */
  readonly also?: string;
  /** Chance that the board is cured by it. */
  readonly cureChance: number;
  readonly minutes: number;
}

/** The order of trying: most chance of a cure for its minutes first. */
export const byWorth = (a: Pick<Repair, 'cureChance' | 'minutes'>, b: Pick<Repair, 'cureChance' | 'minutes'>): number =>
  b.cureChance / b.minutes - a.cureChance / a.minutes;

/** Below this a repair is not worth naming. */
const LEAST_CURE = 0.01;
/** A pair is named from this chance of being the cure together on. Engineering estimate. */
const LEAST_PAIR = 0.05;

/** What mends a fault: the part, or its image alone. */
const needOf = (f: Fault): string =>
  f.effects.length === 1 && f.effects[0].kind === 'imageBad' ? `${f.ref}/image` : f.ref;

/**
 * Repairs in the order of cure chance per minute, single ones and pairs. For one fault and independent costs the order by
 * p/C is optimal (Heckerman, Breese, Rommelse 1995; Kalagnanam & Henrion 1988).
 */
export function rankRepairs(
  board: Board,
  belief: Belief,
  access: Access,
  done: ReadonlySet<string>,
  absent: ReadonlySet<string> = new Set(),
): Repair[] {
  const alone = new Map<string, number>();
  const together = new Map<string, number>();
  const add = (map: Map<string, number>, key: string, p: number): void => void map.set(key, (map.get(key) ?? 0) + p);
  const open = belief.faults.map((f) => (isGone(f, absent, done) ? undefined : needOf(f)));
  belief.case.space.forEach((h, i, j) => {
    const p = belief.p[h];
    if (p < 1e-9) return;
    const needs = [...new Set([open[i], j < 0 ? undefined : open[j]].filter((need) => need !== undefined))].sort();
    if (needs.length === 1) add(alone, needs[0], p);
    else if (needs.length === 2) add(together, needs.join(' '), p);
  });
  const step = (need: string): Repair => {
    const image = need.endsWith('/image');
    const ref = need.replace('/image', '');
    return {
      ref,
      words: image ? `Rewrite the image of ${ref}` : `Replace ${ref}`,
      cureChance: alone.get(need) ?? 0,
      minutes: (image ? rewriteMinutes(board) : 2 * workMinutes(board, ref)) + openingMinutes(board, access),
    };
  };
  const isPart = (need: string): boolean => partByRef(board, need.replace('/image', '')) !== undefined;
  const singles = [...alone.keys()].filter(isPart).map(step);
  const pairs = [...together].flatMap(([key, p]): Repair[] => {
    const [a, b] = key.split(' ');
    if (p < LEAST_PAIR || !isPart(a) || !isPart(b)) return [];
    const [first, second] = [step(a), step(b)];
    return [
      {
        ref: first.ref,
        also: second.ref,
        words: `${first.words}, and ${second.words.charAt(0).toLowerCase()}${second.words.slice(1)}`,
        cureChance: p + first.cureChance + second.cureChance,
        minutes: first.minutes + second.minutes - openingMinutes(board, access),
      },
    ];
  });
  return [...singles, ...pairs].filter((r) => r.cureChance > LEAST_CURE).sort(byWorth);
}

const rewriteMinutes = (board: Board): number => testMinutes(board, { kind: 'image', ref: '' }, 'out');
const openingMinutes = (board: Board, access: Access): number =>
  testMinutes(board, { kind: 'ohm', net: '' }, access) - testMinutes(board, { kind: 'ohm', net: '' }, 'out');
