/** A molten ball between two round pads, as a sphere cut by two parallel planes. */
export interface Collapse {
  readonly standoffMm: number;
  /** Radius of the joint at its widest. */
  readonly widestRadiusMm: number;
}

/**
 * Standoff and width of a collapsed ball: h³ + 3(a²+b²)h − 6V/π = 0 has one positive root,
 * h = 2√p·sinh(⅓ asinh(q/(2p^1.5))) with p = a²+b², q = 6V/π (hyperbolic solution of the depressed cubic).
 *
 * @param ballMm ball diameter; @param partPadRadiusMm a; @param boardPadRadiusMm b; @param addedMm3 solder added.
 */
export function collapseBall(
  ballMm: number,
  partPadRadiusMm: number,
  boardPadRadiusMm: number,
  addedMm3 = 0,
): Collapse {
  const [a, b] = [partPadRadiusMm, boardPadRadiusMm];
  const volume = (Math.PI * ballMm ** 3) / 6 + addedMm3;
  const p = a * a + b * b;
  const q = (6 * volume) / Math.PI;
  const h = 2 * Math.sqrt(p) * Math.sinh(Math.asinh(q / (2 * p ** 1.5)) / 3);
  const z = (b * b + h * h - a * a) / (2 * h);
  return { standoffMm: h, widestRadiusMm: Math.max(a, b, z >= 0 && z <= h ? Math.hypot(a, z) : 0) };
}
