import { PART_KINDS, type PartKind } from '../../board';
import type { Fault } from './fault';
import type { OutsideThing } from './outside';
import { PART_KIND_DEFINITIONS } from './registry';
import { HISTORY_FLAGS, type HistoryFlag } from './story';

/** Factors by flag and kind of part. */
export type HistoryFactors = Readonly<Partial<Record<HistoryFlag, Readonly<Partial<Record<PartKind, number>>>>>>;

/** How the owner's story shifts the odds of each kind of part: gathered from the kinds. */
export const HISTORY_FACTORS: Readonly<Record<HistoryFlag, Readonly<Partial<Record<PartKind, number>>>>> =
  Object.fromEntries(
    HISTORY_FLAGS.map((flag) => [
      flag,
      Object.fromEntries(
        PART_KINDS.flatMap((kind) => {
          const factor = PART_KIND_DEFINITIONS[kind].story[flag];
          return factor === undefined ? [] : [[kind, factor]];
        }),
      ),
    ]),
  ) as Record<HistoryFlag, Partial<Record<PartKind, number>>>;

/** The same for what is not on the board. */
const OUTSIDE_FACTORS: Partial<Record<HistoryFlag, Partial<Record<OutsideThing, number>>>> = {
  unknownCharger: { charger: 4, cable: 4 },
  fall: { cable: 1.5 },
};

/** The factors of the story on one kind of part: those that the bench has set for itself, else the defaults. */
export function historyFactor(
  kind: PartKind,
  history: readonly HistoryFlag[],
  factors: HistoryFactors = HISTORY_FACTORS,
): number {
  return history.reduce((factor, flag) => factor * (factors[flag]?.[kind] ?? HISTORY_FACTORS[flag][kind] ?? 1), 1);
}

/** How much likelier a fault is that the story speaks of directly. Engineering estimate. */
const STORY_FACTOR = 8;

/**
 * How much likelier a fault is at what was replaced or mended in a job that came back: its joints, a weak new part, and
 * what killed the first one are still about. Engineering estimate.
 */
const AGAIN_FACTOR = 5;

/** How much likelier the story and the bench's own records make a fault. */
export function historyFactorOf(
  fault: Fault,
  kind: PartKind | undefined,
  history: readonly HistoryFlag[],
  practice: {
    readonly factors?: HistoryFactors;
    readonly records?: Readonly<Partial<Record<PartKind, number>>>;
    /** Parts, and single faults by their id, that were worked on before the job came back. */
    readonly again?: readonly string[];
  },
): number {
  const isAgain = practice.again?.some((name) => name === fault.ref || name === fault.id) ?? false;
  const told = (isAgain ? AGAIN_FACTOR : 1) * (fault.story && history.includes(fault.story) ? STORY_FACTOR : 1);
  if (kind) return told * historyFactor(kind, history, practice.factors) * (practice.records?.[kind] ?? 1);
  if (told > 1) return told;
  const thing = fault.effects.find((e) => e.kind === 'outside');
  return thing ? history.reduce((factor, flag) => factor * (OUTSIDE_FACTORS[flag]?.[thing.what] ?? 1), 1) : 1;
}
