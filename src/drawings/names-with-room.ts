import type { Part } from '@/core/board';

/** Names up to so many are all drawn; of more only those that can be read. Engineering estimate. */
const FEW = 60;
/** Width of a letter and height of a line, of the letters' size. */
const LETTER = 0.62;
const LINE = 1.1;

/**
 * Parts whose names are drawn: of a crowded board those that lie on no name that comes before them. What matters now comes
 * first, then the larger part.
 * @param size of the letters, mm. @param matters parts whose names are drawn whatever lies there.
 */
export function namesWithRoom(
  parts: readonly Part[],
  areaMm2: (part: Part) => number,
  size: number,
  matters: (part: Part) => boolean,
): Part[] {
  if (parts.length <= FEW) return [...parts];
  const kept: Part[] = [];
  const order = [...parts].sort(
    (a, b) => Number(matters(b)) - Number(matters(a)) || areaMm2(b) - areaMm2(a) || (a.ref < b.ref ? -1 : 1),
  );
  const overlaps = (a: Part, b: Part): boolean =>
    Math.abs(a.yMm - b.yMm) < LINE * size &&
    Math.abs(a.xMm - b.xMm) < (LETTER * size * (a.ref.length + b.ref.length)) / 2;
  for (const part of order) if (matters(part) || !kept.some((other) => overlaps(other, part))) kept.push(part);
  return kept;
}
