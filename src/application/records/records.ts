import { z } from 'zod';
import { learnedDuration, STEP_KINDS_OF, stepsSeen, type StepKind } from '../../core/day';
import {
  changeOf,
  jobsNear,
  leaveOneOut,
  LEDGER_GROUPS,
  pointGroups,
  shareChangeOf,
  tally,
  toldAndWas,
  type Change,
  type LedgerGroup,
  type LedgerRow,
  type Moved,
  type NearValue,
  type PointGroup,
  type ToldAndWas,
} from '../../core/ledger';
import { listBoards } from '../../db/boards';
import { queryJobs, refreshSummaries } from '../../db/job-summaries';
import { eventsOfJobs } from '../../db/jobs';
import { findLearning, saveLearning } from '../../db/knowledge';
import { listStations } from '../../db/library';
import { ledgerLines, ledgerPoints, pointReadings, refreshLedger } from '../../db/ledger';
import type { Database } from '../../db/client';
import type { Session } from '../../db/session';
import { refused, type ActionResult } from '../action-result';
import { keep } from '../once';

const day = z.iso.date();
/** What the records are asked, as an address has it; what makes no sense is left out. */
export const recordsAskedSchema = z.object({
  by: z.enum(LEDGER_GROUPS).catch('board'),
  boardId: z.string().max(80).optional().catch(undefined),
  from: day.optional().catch(undefined),
  before: day.optional().catch(undefined),
});
export type RecordsAsked = z.infer<typeof recordsAskedSchema>;

export interface Records {
  readonly by: LedgerGroup;
  readonly boards: readonly { readonly id: string; readonly name: string }[];
  readonly boardId?: string;
  readonly rows: readonly LedgerRow[];
  readonly all: LedgerRow | undefined;
  readonly promised?: ToldAndWas;
  /** Where the share of cures became another one: the closing from which on it holds. */
  readonly change?: Change & { readonly since: string };
}

const namedBoards = async (db: Session): Promise<{ id: string; name: string }[]> =>
  (await listBoards(db)).map((b) => ({ id: b.id, name: `${b.device}, ${b.name} ${b.revision}` }));

async function refreshed(db: Session): Promise<void> {
  await refreshSummaries(db);
  await refreshLedger(db);
}

/** Cure rates, comebacks, minutes and money, put together as asked. */
export async function loadRecords(db: Session, { by, boardId, from, before }: RecordsAsked): Promise<Records> {
  await refreshed(db);
  const [boards, lines] = await Promise.all([namedBoards(db), ledgerLines(db, { boardId, from, before })]);
  const named = by === 'board' ? boards : by === 'station' ? await listStations(db) : [];
  const nameOf = new Map(named.map(({ id, name }) => [id, name]));
  const rows = tally(lines, by).map((r) => ({ ...r, name: nameOf.get(r.name) ?? r.name }));
  const change = shareChangeOf(lines.map((l) => l.outcome === 'repaired'));
  return {
    ...{ by, boards, boardId, rows, promised: toldAndWas(lines) },
    all: tally(
      lines.map((l) => ({ ...l, board: 'all' })),
      'board',
    ).at(0),
    change: change && { ...change, since: lines[change.at].closedAt },
  };
}

export interface PointRecords {
  readonly boards: readonly { readonly id: string; readonly name: string }[];
  readonly boardId?: string;
  readonly points: readonly { readonly point: string; readonly name: string; readonly readings: number }[];
  readonly point?: string;
  readonly name?: string;
  readonly groups: readonly PointGroup[];
  /** What was asked near a value, and what those jobs were. */
  readonly near?: NearValue & { readonly value: number };
}

/** Every reading at a point, by what was at fault. */
export async function loadPoint(
  db: Session,
  asked: { readonly boardId?: string; readonly point?: string; readonly near?: number },
): Promise<PointRecords> {
  await refreshed(db);
  const boards = await namedBoards(db);
  const boardId = asked.boardId ?? boards[0]?.id;
  if (boardId === undefined) return { boards, points: [], groups: [] };
  const points = await ledgerPoints(db, boardId);
  const point = asked.point ?? points[0]?.point;
  const readings = point === undefined ? [] : await pointReadings(db, boardId, point);
  const { near } = asked;
  return {
    ...{ boards, boardId, points, point, name: points.find((p) => p.point === point)?.name },
    groups: pointGroups(readings),
    ...(near !== undefined && { near: { ...jobsNear(readings, near), value: near } }),
  };
}

/** What learning moved for one kind of step. */
export interface LearnedStep {
  readonly kind: StepKind;
  readonly words: string;
  readonly ships: number;
  readonly learned: number;
  readonly moved: Moved;
  readonly change?: Change;
}

export interface Learning {
  readonly isUsed: boolean;
  readonly jobs: number;
  readonly steps: readonly LearnedStep[];
}

/** Closed jobs that durations are learned from. */
const LEARNED_FROM = 200;

/** What the closed jobs moved, and whether it told the others better than what ships. */
export async function loadLearning(db: Session): Promise<Learning> {
  await refreshSummaries(db);
  const { jobs } = await queryJobs(db, { state: 'closed', limit: LEARNED_FROM });
  const numbers = jobs.filter((j) => !j.training).map((j) => j.number);
  const events = await eventsOfJobs(
    db,
    numbers.toSorted((a, b) => a - b),
  );
  const seen = stepsSeen([...events.values()]);
  const { durations } = await findLearning(db);
  const steps = Object.entries(STEP_KINDS_OF).map(([name, { label, prior }]): LearnedStep => {
    const kind = name as StepKind;
    return {
      ...{ kind, words: label, ships: prior.minutes },
      learned: learnedDuration(prior, seen[kind]).minutes,
      moved: leaveOneOut(prior, (others) => learnedDuration(prior, others), seen[kind]),
      change: changeOf(seen[kind]),
    };
  });
  return { isUsed: durations, jobs: numbers.length, steps };
}

/** Whether plans and promises count with what was learned. */
export async function keepLearning(db: Database, durations: unknown): Promise<ActionResult> {
  if (typeof durations !== 'boolean') return refused('Expected learning to be on or off.', 'badInput');
  return keep(db, 'learning', async (tx) => {
    await saveLearning(tx, { durations });
    return durations ? 'Plans count with what was learned.' : 'Plans count with what ships.';
  });
}

/** The tables as comma-separated values, for whatever else counts them. */
export async function recordsCsv(db: Session, asked: RecordsAsked): Promise<readonly (readonly (string | number)[])[]> {
  const { rows, by } = await loadRecords(db, asked);
  const head = [by, 'jobs', 'repaired', 'cure low', 'cure', 'cure high', 'came back', 'minutes', 'minutes 10 %'];
  return [
    [...head, 'minutes 90 %', 'money', 'promised', 'kept'],
    ...rows.map((r) => [
      ...[r.name, r.jobs, r.repaired, share(r.cure.low), share(r.cure.mean), share(r.cure.high), r.cameBack],
      ...[r.minutes, r.minutesLow, r.minutesHigh, r.money ?? '', r.promised, r.kept],
    ]),
  ];
}

const share = (value: number): number => Number(value.toFixed(4));
