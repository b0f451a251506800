import { padsOf, type Board, type Part } from '../board';

/** A click that is not nearer to one corner than to the next by this share says nothing of which it meant. Engineering estimate. */
const CLEARLY = 0.8;

/**
 * How a part lies when its first pad is where a mark was seen: of the four quarter turns from how it lies the one whose first pad
 * comes nearest.
 * @returns degrees from 0 to below 360; undefined where the place is about as near to two of them, as the middle of the part is.
 */
export function rotationByFirstPin(
  board: Board,
  part: Part,
  seen: { readonly xMm: number; readonly yMm: number },
): number | undefined {
  const turns = [0, 90, 180, 270].map((by) => {
    const rotationDeg = (part.rotationDeg + by) % 360;
    const [first] = padsOf(board, { ...part, rotationDeg });
    return { rotationDeg, apartMm: Math.hypot(first.xMm - seen.xMm, first.yMm - seen.yMm) };
  });
  const [best, second] = turns.sort((a, b) => a.apartMm - b.apartMm);
  return best.apartMm < CLEARLY * second.apartMm ? best.rotationDeg : undefined;
}
