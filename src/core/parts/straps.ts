import { fail, ok, type Result } from '../result';

/** Two resistors between a supply and ground whose middle tells a chip its place. */
export interface Divider {
  readonly topOhm: number;
  readonly bottomOhm: number;
  /** Share by which either may be off, for example 0.01. */
  readonly tolerance: number;
}

export interface DecodedStrap {
  /** Share of the supply at the middle, and its lowest and highest under tolerance. */
  readonly share: number;
  readonly lowest: number;
  readonly highest: number;
  readonly bin: number;
  /** True when the bin is the same at every corner of the tolerances. */
  readonly sure: boolean;
}

const shareOf = (topOhm: number, bottomOhm: number): number => bottomOhm / (topOhm + bottomOhm);
const binOf = (share: number, bins: number): number => Math.min(bins - 1, Math.floor(share * bins));

/** Reads a divider into one of so many equal bins of its supply, with the worst case of both tolerances. */
export function decodeStrap({ topOhm, bottomOhm, tolerance }: Divider, bins: number): DecodedStrap {
  const share = shareOf(topOhm, bottomOhm);
  const lowest = shareOf(topOhm * (1 + tolerance), bottomOhm * (1 - tolerance));
  const highest = shareOf(topOhm * (1 - tolerance), bottomOhm * (1 + tolerance));
  const bin = binOf(share, bins);
  return { share, lowest, highest, bin, sure: binOf(lowest, bins) === bin && binOf(highest, bins) === bin };
}

export interface StrapWish {
  readonly bins: number;
  readonly bin: number;
  readonly tolerance: number;
  /** Resistances to choose from, ohm. */
  readonly values: readonly number[];
  /** Bounds of top plus bottom: low enough against leakage, high enough against waste. */
  readonly totalOhm: readonly [number, number];
  /** What sits there now; a design that changes one resistor only is told too. */
  readonly now?: { readonly topOhm: number; readonly bottomOhm: number };
}

export interface StrapDesign extends DecodedStrap {
  readonly topOhm: number;
  readonly bottomOhm: number;
  /** Distance of the share from the middle of the bin. */
  readonly offCentre: number;
}

/** What a divider draws and how stiff it is. Engineering estimate: 10 kΩ to 400 kΩ keep both harmless on a 3.3 V rail. */
export const STRAP_TOTAL_OHM: readonly [number, number] = [10_000, 400_000];

/**
 * The pair that lands nearest the bin's middle and stays inside the bin at every corner of the tolerances.
 * The nearest bottom for each top is found by bisection in the sorted values.
 */
export function designStrap(wish: StrapWish): Result<StrapDesign> {
  const values = [...new Set(wish.values)].filter((v) => v > 0).sort((a, b) => a - b);
  return bestOf(
    wish,
    values.flatMap((topOhm) => near(values, bottomFor(topOhm, wish)).map((bottomOhm) => [topOhm, bottomOhm] as const)),
  );
}

/** The same with one resistor left as it is: one part less to heat. */
export function designOneResistor(wish: StrapWish): Result<StrapDesign> {
  const { now } = wish;
  if (!now) return fail('Expected the two resistors that sit there now; got none.');
  const pairs = wish.values.flatMap((v) => [[now.topOhm, v] as const, [v, now.bottomOhm] as const]);
  return bestOf(wish, pairs);
}

const centreOf = ({ bins, bin }: StrapWish): number => (bin + 0.5) / bins;

function bottomFor(topOhm: number, wish: StrapWish): number {
  const centre = centreOf(wish);
  return (topOhm * centre) / (1 - centre);
}

/** The values on either side of the wanted one, out to where the total stays within bounds. */
function near(sorted: readonly number[], wanted: number): number[] {
  let low = 0;
  let high = sorted.length;
  while (low < high) {
    const middle = (low + high) >> 1;
    if (sorted[middle] < wanted) low = middle + 1;
    else high = middle;
  }
  return sorted.slice(Math.max(0, low - 1), low + 1);
}

function bestOf(wish: StrapWish, pairs: readonly (readonly [number, number])[]): Result<StrapDesign> {
  const { bins, bin, tolerance, totalOhm } = wish;
  if (!(Number.isInteger(bin) && bin >= 0 && bin < bins))
    return fail(`Expected a bin from 0 to ${bins - 1}; got ${bin}.`);
  let best: StrapDesign | undefined;
  for (const [topOhm, bottomOhm] of pairs) {
    const total = topOhm + bottomOhm;
    if (total < totalOhm[0] || total > totalOhm[1]) continue;
    const decoded = decodeStrap({ topOhm, bottomOhm, tolerance }, bins);
    if (!decoded.sure || decoded.bin !== bin) continue;
    const design = { ...decoded, topOhm, bottomOhm, offCentre: Math.abs(decoded.share - centreOf(wish)) };
    if (!best || isBetter(design, best)) best = design;
  }
  return best
    ? ok(best)
    : fail(
        `No pair of these resistors stays inside bin ${bin} of ${bins} at ±${(100 * tolerance).toFixed(1)} % with ${totalOhm[0]} to ${totalOhm[1]} ohm in all.`,
      );
}

/** Nearer the middle; of two alike the higher resistance, which draws less. */
const isBetter = (a: StrapDesign, b: StrapDesign): boolean =>
  a.offCentre < b.offCentre - 1e-12 ||
  (a.offCentre < b.offCentre + 1e-12 && a.topOhm + a.bottomOhm > b.topOhm + b.bottomOhm);
