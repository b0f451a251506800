import { PART_KINDS, partByRef, type Board, type PartKind } from '../../board';
import { Predictor, clearedPart, updateBelief } from '../../diagnose';
import { counted, shareBelief, shareRange, type ShareBelief } from '../../math';
import type { JobState } from '../log';

/** What the closed jobs of a bench say of one kind of part. */
export interface KindRecord {
  readonly kind: PartKind;
  /** Repaired jobs in which a part of the kind was replaced or rewritten. */
  readonly seen: number;
  /** In how many the odds before any reading would have had it at fault. */
  readonly expected: number;
  /** How much likelier than the defaults it has been, drawn towards one while there are few jobs. */
  readonly factor: number;
  /** Bounds of the factor that hold with 95 %. */
  readonly low: number;
  readonly high: number;
}

/**
 * So many jobs' worth of the default stand beside what was seen: a Gamma prior of this shape round factor one, counts
 * being Poisson. Engineering estimate.
 */
const DEFAULT_JOBS = 5;
/** The bounds within which a factor may be set. */
const [LEAST, MOST] = [0.1, 20];

/** Kinds of part that a repaired job found at fault; a job that was not repaired says nothing. */
export function kindsAtFault(board: Board, state: JobState): ReadonlySet<PartKind> {
  if (state.closed?.outcome !== 'repaired') return new Set();
  const kinds = state.replaced.map((key) => clearedPart(board, key)?.kind);
  return new Set(kinds.filter((kind) => kind !== undefined));
}

/** The factors that repaired jobs suggest, one job a board and its kinds at fault. */
export function learnedRecords(repaired: readonly { board: Board; kinds: ReadonlySet<PartKind> }[]): KindRecord[] {
  const shares = new Map<string, ReadonlyMap<PartKind, number>>();
  const shareOf = (board: Board): ReadonlyMap<PartKind, number> => {
    const known = shares.get(board.id) ?? priorShares(board);
    shares.set(board.id, known);
    return known;
  };
  return PART_KINDS.map((kind) => {
    const seen = repaired.filter(({ kinds }) => kinds.has(kind)).length;
    const expected = repaired.reduce((sum, { board }) => sum + (shareOf(board).get(kind) ?? 0), 0);
    const factor = (seen + DEFAULT_JOBS) / (expected + DEFAULT_JOBS);
    const range = factorRange(seen, expected, repaired.length);
    return { kind, seen, expected, factor: Math.min(MOST, Math.max(LEAST, factor)), ...range };
  });
}

/**
 * The bounds of a factor: the share of jobs with the kind at fault is a Beta distribution whose mean is the default's and
 * whose spread is that of the Gamma prior; the jobs are counted into it.
 */
export function factorRange(
  seen: number,
  expected: number,
  jobs: number,
): { readonly low: number; readonly high: number } {
  const usual = jobs > 0 ? expected / jobs : 0;
  // A kind that no board has, or that is at fault in every job, has no range.
  if (usual <= 0 || usual >= 1) return { low: LEAST, high: MOST };
  const { low, high } = shareRange(counted(kindBelief(usual), seen, jobs - seen));
  return { low: low / usual, high: high / usual };
}

/** What is believed of a kind's share before any job: its mean the usual share, its standard deviation that of the factor. */
export const kindBelief = (usual: number): ShareBelief =>
  shareBelief(usual, Math.max(1, ((1 - usual) / usual) * DEFAULT_JOBS - 1));

/** Chance that a part of each kind, one or more, is at fault on a board, before the story and any reading. */
function priorShares(board: Board): ReadonlyMap<PartKind, number> {
  const { space, faults, p } = updateBelief(Predictor.of(board), [], []);
  const kinds = faults.map((f) => partByRef(board, f.ref)?.kind);
  const shares = new Map<PartKind, number>();
  const add = (kind: PartKind | undefined, chance: number): void => {
    if (kind) shares.set(kind, (shares.get(kind) ?? 0) + chance);
  };
  space.forEach((h, i, j) => {
    add(kinds[i], p[h]);
    if (j >= 0 && kinds[j] !== kinds[i]) add(kinds[j], p[h]);
  });
  return shares;
}
