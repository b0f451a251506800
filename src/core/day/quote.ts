import { normalDraw, pickIndex, seededRandom } from './draws';

/** One thing that may be wrong, and what mending it takes. */
export interface QuoteWay {
  readonly label: string;
  /** Chance that this is it. */
  readonly chance: number;
  readonly minutes: number;
  /** Parts, in the shop's money. */
  readonly parts: number;
}

/** How the shop prices. */
export interface PriceRule {
  readonly hourPrice: number;
  /** Asked whatever comes out. */
  readonly diagnosisFee: number;
  /** Instead of hours, where set. */
  readonly flat?: number;
  /** Nothing but the diagnosis fee where it is not cured. */
  readonly noCureNoFee: boolean;
  /** Added on top, such as 0.19. */
  readonly tax: number;
}

export interface QuoteInput {
  /** In the order in which they are tried. */
  readonly ways: readonly QuoteWay[];
  /** Minutes until it is known, and to prove each cure. */
  readonly searchMinutes: number;
  readonly proofMinutes: number;
  /** Spread of the logarithm of all minutes. */
  readonly sdLog: number;
  /** Chance that a proven cure comes back. */
  readonly comebackChance: number;
  /** What the device and its data are worth to the owner; undefined where nobody said. */
  readonly worth?: number;
}

export interface Range {
  readonly low: number;
  readonly mean: number;
  readonly high: number;
}

export interface Quote {
  readonly successChance: number;
  readonly comebackChance: number;
  readonly minutes: Range;
  readonly parts: Range;
  /** What the owner pays, tax included, over all outcomes, eight of ten of them between low and high. */
  readonly price: Range;
  /** The same where it is cured. */
  readonly priceCured: Range;
  /** What the shop keeps of it after parts and its hours. */
  readonly marginMean: number;
  /** Chance of success from which on the owner is better off with the repair; undefined without a worth. */
  readonly breakEvenChance?: number;
}

const DRAWS = 4000;
const SEED = 41;
/** A way is tried no further below this chance of being it. As in the work order. */
const LEAST_CHANCE = 0.02;

/** What a job will take and cost, over all that may be wrong: each way is tried in its order until it was it. */
export function quoteOf(
  { ways, searchMinutes, proofMinutes, sdLog, comebackChance, worth }: QuoteInput,
  rule: PriceRule,
): Quote {
  const tried = ways.filter((w) => w.chance >= LEAST_CHANCE);
  const random = seededRandom(SEED);
  const rows = Array.from({ length: DRAWS }, () => {
    const at = pickIndex(
      tried.map((w) => w.chance),
      random,
    );
    const done = at === undefined ? tried : tried.slice(0, at + 1);
    const planned = searchMinutes + done.reduce((sum, w) => sum + w.minutes + proofMinutes, 0);
    const minutes = planned * Math.exp(sdLog * normalDraw(random) - (sdLog * sdLog) / 2);
    const parts = done.reduce((sum, w) => sum + w.parts, 0);
    const cured = at !== undefined;
    const work = rule.flat ?? (minutes / 60) * rule.hourPrice + parts;
    const price = (rule.diagnosisFee + (cured || !rule.noCureNoFee ? work : 0)) * (1 + rule.tax);
    return { minutes, parts, cured, price, kept: price / (1 + rule.tax) - parts - (minutes / 60) * rule.hourPrice };
  });
  const cured = rows.filter((r) => r.cured);
  const price = rangeOf(rows.map((r) => r.price));
  const priceCured = rangeOf((cured.length > 0 ? cured : rows).map((r) => r.price));
  return {
    successChance: cured.length / rows.length,
    comebackChance,
    minutes: rangeOf(rows.map((r) => r.minutes)),
    parts: rangeOf(rows.map((r) => r.parts)),
    price,
    priceCured,
    marginMean: rows.reduce((sum, r) => sum + r.kept, 0) / rows.length,
    ...(worth !== undefined && worth > 0 && { breakEvenChance: Math.min(1, price.mean / worth) }),
  };
}

/** Mean, and what eight of ten lie between. */
function rangeOf(values: readonly number[]): Range {
  const sorted = values.toSorted((a, b) => a - b);
  const at = (share: number): number => sorted[Math.min(sorted.length - 1, Math.floor(share * sorted.length))];
  return { low: at(0.1), mean: sorted.reduce((sum, v) => sum + v, 0) / sorted.length, high: at(0.9) };
}
