import { counted, median, shareBelief, shareRange, type ShareRange } from '../math';

/** A closing as the tables of the records count it. */
export interface LedgerLine {
  readonly board: string;
  /** YYYY-MM. */
  readonly month: string;
  readonly outcome: string;
  readonly isComeback: boolean;
  readonly daysGood?: number;
  readonly cause: string;
  readonly person: string;
  readonly source?: string;
  readonly station?: string;
  readonly minutes: number;
  readonly price?: number;
  readonly quoted?: number;
  readonly successTold?: number;
  readonly closedAt: string;
  readonly promisedAt?: string;
}

/** By what the records are put together. */
export const LEDGER_GROUPS = ['board', 'cause', 'person', 'month', 'source', 'station'] as const;
export type LedgerGroup = (typeof LEDGER_GROUPS)[number];

/** What the jobs of one group came to. */
export interface LedgerRow {
  readonly name: string;
  readonly jobs: number;
  readonly repaired: number;
  /** Share of jobs that were repaired, with bounds that hold it with 95 %. */
  readonly cure: ShareRange;
  /** Repaired ones that came back, and their share. */
  readonly cameBack: number;
  readonly comeback: ShareRange;
  /** Bench minutes: the middle one, and between which eight of ten lie. */
  readonly minutes: number;
  readonly minutesLow: number;
  readonly minutesHigh: number;
  /** What owners paid, together and for each hour at the bench; undefined where no price was kept. */
  readonly money?: number;
  readonly perHour?: number;
  /** Promises that were given, and kept. */
  readonly promised: number;
  readonly kept: number;
  /** Too few jobs to say anything by: the range is nearly the whole. */
  readonly isThin: boolean;
}

/** Below so many jobs a share is no more than a story. Engineering estimate. */
const THIN = 8;

/** Nothing known beforehand: Jeffreys' prior. Source: Brown, Cai and DasGupta (2001), Interval estimation for a binomial proportion (from memory). */
const NOTHING_KNOWN = shareBelief(0.5, 1);

/** Shares with intervals for each group, the largest group first; months in their order. */
export function tally(lines: readonly LedgerLine[], by: LedgerGroup): LedgerRow[] {
  const groups = new Map<string, LedgerLine[]>();
  for (const line of lines) {
    const name = line[by] ?? 'not noted';
    const group = groups.get(name);
    if (group) group.push(line);
    else groups.set(name, [line]);
  }
  const rows = [...groups].map(([name, group]) => rowOf(name, group));
  return by === 'month'
    ? rows.sort((a, b) => (a.name < b.name ? -1 : 1))
    : rows.sort((a, b) => b.jobs - a.jobs || (a.name < b.name ? -1 : 1));
}

function rowOf(name: string, group: readonly LedgerLine[]): LedgerRow {
  const repaired = group.filter((l) => l.outcome === 'repaired');
  const cameBack = repaired.filter((l) => l.daysGood !== undefined).length;
  const minutes = Float64Array.from(group, (l) => l.minutes).sort();
  const paid = group.filter((l) => l.price !== undefined);
  const money = paid.reduce((sum, l) => sum + l.price!, 0);
  const hours = paid.reduce((sum, l) => sum + l.minutes, 0) / 60;
  const promised = group.filter((l) => l.promisedAt !== undefined);
  return {
    ...{ name, jobs: group.length, repaired: repaired.length, cameBack },
    cure: shareRange(counted(NOTHING_KNOWN, repaired.length, group.length - repaired.length)),
    comeback: shareRange(counted(NOTHING_KNOWN, cameBack, repaired.length - cameBack)),
    minutes: median([...minutes]),
    minutesLow: quantile(minutes, 0.1),
    minutesHigh: quantile(minutes, 0.9),
    ...(paid.length > 0 && { money, ...(hours > 0 && { perHour: money / hours }) }),
    promised: promised.length,
    kept: promised.filter((l) => l.closedAt <= l.promisedAt!).length,
    isThin: group.length < THIN,
  };
}

const quantile = (sorted: Float64Array, share: number): number =>
  sorted[Math.min(sorted.length - 1, Math.max(0, Math.round(share * (sorted.length - 1))))];

/** What was said before the work against what became of it. */
export interface ToldAndWas {
  readonly quotes: number;
  /** Mean chance of success told, and the share of those jobs that were repaired. */
  readonly toldChance: number;
  readonly was: ShareRange;
  /** Mean of price paid over price quoted. */
  readonly priceRatio?: number;
  readonly promised: number;
  readonly kept: ShareRange;
}

/** How well the shop's words before the work were kept; undefined where none were given. */
export function toldAndWas(lines: readonly LedgerLine[]): ToldAndWas | undefined {
  const told = lines.filter((l) => l.successTold !== undefined);
  const promised = lines.filter((l) => l.promisedAt !== undefined);
  if (told.length + promised.length === 0) return undefined;
  const repaired = told.filter((l) => l.outcome === 'repaired').length;
  const kept = promised.filter((l) => l.closedAt <= l.promisedAt!).length;
  const priced = lines.filter((l) => l.price !== undefined && l.quoted !== undefined && l.quoted > 0);
  return {
    quotes: told.length,
    toldChance: told.length === 0 ? 0 : told.reduce((s, l) => s + l.successTold!, 0) / told.length,
    was: shareRange(counted(NOTHING_KNOWN, repaired, told.length - repaired)),
    priceRatio: priced.length === 0 ? undefined : priced.reduce((s, l) => s + l.price! / l.quoted!, 0) / priced.length,
    promised: promised.length,
    kept: shareRange(counted(NOTHING_KNOWN, kept, promised.length - kept)),
  };
}
