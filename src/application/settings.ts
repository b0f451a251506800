import { practiceSchema, type Practice } from '../core/diagnose';
import { heatGoalsSchema } from '../core/heat';
import { isStandIn } from '../core/board';
import { foldJob, kindsAtFault, learnedRecords, reportWordsSchema, type KindRecord } from '../core/job';
import { alloySchema, sitePracticeSchema } from '../core/joints';
import { sourcingPracticeSchema, type SourcingPractice } from '../core/sourcing';
import { listBoards } from '../db/boards';
import type { Database } from '../db/client';
import { workOfClosedJobs } from '../db/jobs';
import {
  findGoals,
  findPractice,
  findSitePractice,
  findSourcing,
  saveGoals,
  savePractice,
  saveReportWords,
  saveSitePractice,
  saveSourcing,
} from '../db/knowledge';
import type { Session } from '../db/session';
import { firstIssue, refused, type ActionResult } from './action-result';
import { keep } from './once';

const COUNTS = 'Kept: every open job counts with it from now on.';

/** What each figure must be, in the user's words; the bounds are those of the schema. */
const PRACTICE_BOUNDS: Readonly<Record<string, string>> = {
  errorRates: 'error rates from 0.1 to 50 %',
  factors: 'factors from 0.1 to 20',
  records: 'times as often, from 0.1 to 20',
  prices: 'prices from 0 to 10,000, an hour from 1 to 1,000',
  doubleShare: 'a share of jobs with two faults from 0 to 50 %',
  deadOnArrival: 'a share of bad new parts from 0 to 50 %',
};

/** Keeps what the bench settles for itself, beside what it settled before; what makes no sense changes nothing. */
export async function keepPractice(db: Database, change: unknown): Promise<ActionResult> {
  const parsed = practiceSchema.partial().safeParse(change);
  if (!parsed.success) {
    const [{ path, message }] = parsed.error.issues;
    const [first, ...rest] = path.map(String);
    const where = rest.length > 0 ? `${rest.join(', ')}: ` : '';
    return refused(`Expected ${PRACTICE_BOUNDS[first] ?? 'figures of a bench'}; ${where}${message}.`, 'badInput');
  }
  const given = Object.fromEntries(
    Object.keys(change as object).map((name) => [name, parsed.data[name as keyof Practice]]),
  );
  return keep(db, 'practice', async (tx) => {
    await savePractice(tx, { ...(await findPractice(tx)), ...given });
    return COUNTS;
  });
}

/** Keeps how the shop's reports read; what makes no sense changes nothing. */
export async function keepReportWords(db: Database, words: unknown): Promise<ActionResult> {
  const parsed = reportWordsSchema.safeParse(words);
  if (!parsed.success) {
    const [{ path, message }] = parsed.error.issues;
    return refused(`Expected a heading and lines of a report; ${path.join(', ')}: ${message}.`, 'badInput');
  }
  return keep(db, 'report words', async (tx) => {
    await saveReportWords(tx, parsed.data);
    return 'Kept: every report reads like this from now on.';
  });
}

const GOAL_BOUNDS: Readonly<Record<string, string>> = {
  coldestOverLiquidusK: '0 to 40 K above liquidus',
  neighbourUnderSolidusK: '0 to 60 K below solidus',
  plasticLimitC: '80 to 300 °C for plastic bodies',
  ceilings: 'a table of package ceilings',
  dialLimitC: '200 to 500 °C, or nothing, for the hottest dial',
  riseLimitCPerS: '0.5 to 20 °C/s, or nothing, for the rise',
};

/** Keeps what this bench asks of plans in one alloy; every plan is judged by it from now on. */
export async function keepGoals(db: Database, alloyName: unknown, input: unknown): Promise<ActionResult> {
  const alloy = alloySchema.safeParse(alloyName);
  const goals = heatGoalsSchema.safeParse(input);
  if (!alloy.success) return refused(`Expected one of ${alloySchema.options.join(', ')}.`, 'badInput');
  if (!goals.success) {
    const { first } = firstIssue(goals.error);
    const got = (input as Record<string, unknown>)[first];
    return refused(`Expected ${GOAL_BOUNDS[first] ?? 'a set of goals'}; got ${String(got)}.`, 'badInput');
  }
  return keep(db, 'heat goals', async (tx) => {
    await saveGoals(tx, { ...(await findGoals(tx)), [alloy.data]: goals.data });
    return 'Kept: every plan is judged by it from now on.';
  });
}

/** Keeps one of the house rules of making sites ready. */
export async function keepSiteRule(db: Database, rule: unknown): Promise<ActionResult> {
  const next = sitePracticeSchema.safeParse({ ...(await findSitePractice(db)), ...(rule as object) });
  if (!next.success) {
    const { at, message } = firstIssue(next.error);
    return refused(`Expected a house rule; ${at}: ${message}.`, 'badInput');
  }
  return keep(db, 'site practice', async (tx) => {
    await saveSitePractice(tx, next.data);
    return 'Kept.';
  });
}

const keepSourcing = (db: Database, change: Partial<SourcingPractice>, message: string) =>
  keep(db, 'sourcing', async (tx) => {
    await saveSourcing(tx, { ...(await findSourcing(tx)), ...change });
    return message;
  });

/** Keeps which resistors straps are made of. */
export async function keepStrapSettings(db: Database, input: unknown): Promise<ActionResult> {
  const parsed = sourcingPracticeSchema.partial().safeParse(input);
  return parsed.success
    ? keepSourcing(db, parsed.data, 'Kept.')
    : refused('Expected resistances from 1 Ω to 10 MΩ and a tolerance from 0.1 to 20 %.', 'badInput');
}

/** Keeps how much a report counts, and whether unproven donors may be planned with. */
export async function keepEvidenceSettings(db: Database, change: unknown): Promise<ActionResult> {
  const parsed = sourcingPracticeSchema.pick({ weights: true, unprovenDonors: true }).safeParse(change);
  return parsed.success
    ? keepSourcing(db, parsed.data, COUNTS)
    : refused('Expected weights from 0 to 5, such as 0.7.', 'badInput');
}

/** What the closed jobs of this bench say of each kind of part; nothing is kept by asking. */
export async function learnFromJobs(
  db: Session,
): Promise<{ readonly jobs: number; readonly records: readonly KindRecord[] }> {
  const boards = new Map((await listBoards(db)).map((b) => [b.id, b]));
  const repaired = (await workOfClosedJobs(db)).flatMap(({ boardId, events }) => {
    const board = boards.get(boardId);
    const state = foldJob(events);
    return board && !isStandIn(board) && state.closed?.outcome === 'repaired'
      ? [{ board, kinds: kindsAtFault(board, state) }]
      : [];
  });
  return { jobs: repaired.length, records: learnedRecords(repaired) };
}
