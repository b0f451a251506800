import { partByRef, type Board } from '../../board';
import { balledPart, sitesOf } from '../../site';
import { judgeFlatness, judgeReuse, planSite, type Flatness, type ReuseVerdict, type SitePractice } from '../../joints';
import type { BodyOf } from '../log/events/registry';

/** What is left under a leadless part, mm. Engineering estimate. */
const LEADLESS_STANDOFF_MM = 0.05;

/** Whether a part lies flat, from heights over its corners; undefined where the part or a plane through them is missing. */
export function judgeSeat(
  board: Board,
  { ref, readings }: Pick<BodyOf<'flatness'>, 'ref' | 'readings'>,
): Flatness | undefined {
  const part = partByRef(board, ref);
  if (!part) return undefined;
  const standoffMm = planSite(board, part, board.alloy).reball?.standoffMm ?? LEADLESS_STANDOFF_MM;
  return judgeFlatness(readings, board.packages[part.package].bodyMm, standoffMm);
}

/**
 * Whether a part can go down with the balls that were seen.
 * @returns undefined where the part has no balls, or others than the picture was laid over.
 */
export function judgeSeenBalls(
  board: Board,
  { ref, balls, bridges }: Pick<BodyOf<'inspection'>, 'ref' | 'balls' | 'bridges'>,
  practice: SitePractice,
): ReuseVerdict | undefined {
  const part = partByRef(board, ref);
  const pkg = part && board.packages[part.package];
  const balled = pkg && balledPart(pkg);
  if (!balled || pkg.lands.kind !== 'array') return undefined;
  const sites = sitesOf(balled.pattern);
  if (sites.length !== balls.length) return undefined;
  const { pitchMm } = balled;
  const measured = sites.map(({ x, y }, i) => ({
    xMm: x * pitchMm,
    yMm: y * pitchMm,
    diameterMm: balls[i].diameterMm,
    state: balls[i].state,
  }));
  return judgeReuse(measured, bridges.length, pkg.lands, practice);
}
