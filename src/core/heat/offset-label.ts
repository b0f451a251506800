import { partByRef, type Board, type Part } from '../board';
import type { HeatPlan } from './plan';

/** Whether the nozzle's axis stands beside the middle of the part. */
const isOffset = ({ offsetMm: [x, y] }: Pick<HeatPlan, 'offsetMm'>): boolean => x !== 0 || y !== 0;

/** A part that a hand steers by lies so near, mm, and within some 45° of the line. Engineering estimates. */
const LANDMARK_MM = 15;
const LANDMARK_COSINE = 0.7;

/** Parts that a hand does not steer by while others are in sight. */
const isSmall = ({ kind }: Part): boolean => kind === 'resistor' || kind === 'capacitor';

/**
 * How far beside the middle, and which way, as a hand sees it: `1.8 mm beside its middle, away from L1`. Nothing where the nozzle stands
 * over the middle.
 */
export function offsetLabel(board: Board, plan: HeatPlan): string | undefined {
  if (!isOffset(plan)) return undefined;
  const part = partByRef(board, plan.partRef)!;
  const [x, y] = plan.offsetMm;
  const lengthMm = Math.hypot(x, y);
  const along = (p: Part): number => {
    const [dx, dy] = [p.xMm - part.xMm, p.yMm - part.yMm];
    return (dx * x + dy * y) / (lengthMm * Math.hypot(dx, dy));
  };
  const distanceMm = (p: Part): number => Math.hypot(p.xMm - part.xMm, p.yMm - part.yMm);
  const inLine = board.parts
    .filter((p) => p.side === part.side && p.ref !== part.ref && distanceMm(p) > 0 && distanceMm(p) <= LANDMARK_MM)
    .filter((p) => Math.abs(along(p)) >= LANDMARK_COSINE)
    .toSorted((a, b) => distanceMm(a) - distanceMm(b));
  // A hand thinks of what it stays away from; a chip or a coil is a better mark than a resistor either way.
  const mark =
    inLine.find((p) => !isSmall(p) && along(p) < 0) ??
    inLine.find((p) => !isSmall(p)) ??
    inLine.find((p) => along(p) < 0) ??
    inLine[0];
  const way = mark ? `${along(mark) < 0 ? 'away from' : 'towards'} ${mark.ref}` : `${x} mm along x, ${y} mm along y`;
  return `${lengthMm.toFixed(1)} mm beside its middle, ${way}`;
}
