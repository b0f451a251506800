import type { PartRef } from '../../identities';
import { partByRef, type Board, type Part } from '../../board';
import type { JobAnalysis } from './analysis';
import type { JobState } from '../log';
import type { JointWalk } from '../proof/joint-walk';
import type { JobProof } from '../proof/proof';

/** A placed part with balls or a pad under it has an open or bridged joint. Engineering estimate. */
const HIDDEN_JOINT_RISK = 0.06;
/** A placed part whose joints can be seen. Engineering estimate. */
const SEEN_JOINT_RISK = 0.02;
/** A joint that reads badly. Engineering estimate. */
const SURELY_BAD = 0.9;
/** Any other part, by nothing but chance. Engineering estimate. */
const OTHER_RISK = 0.001;

/**
 * How likely each part still keeps the device from working: what the readings leave to suspect, and the joints of what was
 * placed. Both at once do not add up to more than one.
 */
export function residualRisk(
  board: Board,
  { replaced, placed: soldered }: Pick<JobState, 'replaced' | 'placed'>,
  { suspects, curedChance }: Pick<JobAnalysis, 'suspects' | 'curedChance'>,
  walks: readonly JointWalk[] = [],
): Map<string, number> {
  const placed = new Set(replaced.filter((name) => !name.includes('/')));
  const others = suspects.filter((s) => partByRef(board, s.ref) && !placed.has(s.ref));
  const suspected = new Map<string, number>();
  for (const { ref, p } of others) suspected.set(ref, (suspected.get(ref) ?? 0) + p);
  // Once something was replaced, what the readings leave is the chance that it was not that.
  const left = placed.size > 0 ? 1 - curedChance : 1;
  const touched = (ref: PartRef): JointWalk | undefined => walks.find((w) => w.ref === ref);
  return new Map(
    board.parts.map((part) => {
      const { ref } = part;
      const joint = placed.has(ref) || soldered[ref] !== undefined ? jointRisk(board, part, touched(ref)) : OTHER_RISK;
      return [ref, 1 - (1 - joint) * (1 - Math.min(1, left * (suspected.get(ref) ?? 0)))] as const;
    }),
  );
}

/** Of the chance of a bad joint so much is left when every joint that can be touched reads well. Engineering estimate. */
const LEFT_AFTER_WALK = 0.25;

function jointRisk({ packages }: Board, part: Part, walk: JointWalk | undefined): number {
  if (walk && walk.bad.length > 0) return SURELY_BAD;
  const { lands } = packages[part.package];
  const isHidden = lands.kind === 'array' || ('centreMm' in lands && lands.centreMm !== undefined);
  const risk = isHidden ? HIDDEN_JOINT_RISK : SEEN_JOINT_RISK;
  const share = walk ? walk.readCount / Math.max(1, walk.joints.length) : 0;
  return risk * (1 - share * (1 - LEFT_AFTER_WALK));
}

/** A short on a board that nobody worked on, and what each placed part adds to it by a bridge. Engineering estimates. */
const SHORT_BY_ITSELF = 0.01;
const BRIDGE_RISK = 0.03;
/** A short that was there and was not measured since. Engineering estimate. */
const SHORT_UNSEEN = 0.5;

/** Chance that something shorts the board when it gets its first power. */
export function shortIsBackChance(
  { replaced }: JobState,
  shorts: readonly Pick<JobProof['shorts'][number], 'gone'>[],
): number {
  // One that was replaced twice lies there once.
  const placed = new Set(replaced.filter((name) => !name.includes('/'))).size;
  const unseen = shorts.filter((s) => s.gone === undefined).length;
  const there = shorts.some((s) => s.gone === false);
  return there ? 1 : 1 - (1 - SHORT_BY_ITSELF) * (1 - BRIDGE_RISK) ** placed * (1 - SHORT_UNSEEN) ** unseen;
}
