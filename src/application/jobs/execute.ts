import type { JobNumber } from '../../core/identities';
import { fittedChip } from '../../core/choice';
import {
  decide,
  eventBodySchema,
  foldJob,
  isQuestion,
  originSchema,
  parseEntry,
  record,
  TYPED,
  withOrigin,
  type EntryMode,
  type EventBody,
  type JobCommand,
  type JobEvent,
  type JobState,
  type Origin,
} from '../../core/job';
import { referenceTable } from '../../core/reference';
import { fail, failAll, ok, type Result } from '../../core/result';
import { foldStock } from '../../core/stock';
import type { Database } from '../../db/client';
import { appendEvents, eventByKey, type EntryMeta } from '../../db/jobs';
import { listReferences } from '../../db/knowledge';
import type { Session } from '../../db/session';
import { appendStock, stockEventsOf } from '../../db/stock';
import { answered, refused, refusedFor, saved, type ActionResult } from '../action-result';
import { withLead } from '../access/needs-lead';
import type { Entrant } from '../entrant';
import { loadPlace } from '../place';
import { once } from '../once';
import { answerQuestion, loadRecord, type JobRecord } from './load-job';

const scopeOf = (number: JobNumber): string => `job ${number}`;

/** A typed line, read where it is kept: against the job as it is inside the transaction. A question is answered, and nothing kept. */
export function enterLine(
  db: Database,
  number: JobNumber,
  text: string,
  mode: EntryMode,
  key: string,
  origin: Origin = TYPED,
): Promise<ActionResult> {
  if (isQuestion(text)) return answer(db, number, text, mode);
  return once(db, { key, scope: scopeOf(number), request: { text, mode, origin } }, async (tx, meta) => {
    const job = await loadRecord(tx, number);
    if (!job.ok) return refusedFor(job.problems, 'notFound');
    const entry = parseEntry(job.value.board, foldJob(job.value.shown), text, mode, await loadPlace(tx));
    if (!entry.ok) return refusedFor(entry.problems, 'badInput');
    const command = checkedCommand(withOrigin(entry.value.command, origin));
    return command.ok
      ? carryOut(tx, job.value, command.value, entry.value.echo, meta)
      : refusedFor(command.problems, 'badInput');
  });
}

async function answer(db: Database, number: JobNumber, text: string, mode: EntryMode): Promise<ActionResult> {
  const job = await loadRecord(db, number);
  if (!job.ok) return refusedFor(job.problems, 'notFound');
  const entry = parseEntry(job.value.board, foldJob(job.value.shown), text, mode);
  if (!entry.ok) return refusedFor(entry.problems, 'badInput');
  const { command } = entry.value;
  return command.do === 'weigh' || command.do === 'weighWork'
    ? answered(await answerQuestion(db, job.value, command))
    : refused('Expected a question.', 'badInput');
}

/**
 * Carries out a command: the job is loaded, the command decided and what follows from it appended in one transaction.
 * Nothing is stored when a problem is returned.
 * @param key made once per entry by whoever enters; the same key again is not stored twice.
 */
export function execute(
  db: Database,
  number: JobNumber,
  command: JobCommand,
  key?: string,
  message = 'Kept.',
): Promise<ActionResult> {
  return once(db, { key, scope: scopeOf(number), request: command }, async (tx, meta) => {
    const checked = checkedCommand(command);
    if (!checked.ok) return refusedFor(checked.problems, 'badInput');
    const job = await loadRecord(tx, number);
    if (!job.ok) return refusedFor(job.problems, 'notFound');
    return carryOut(tx, job.value, checked.value, message, meta);
  });
}

/** Records something that happened. */
export const enter = (
  db: Database,
  number: JobNumber,
  body: EventBody,
  key?: string,
  { message, origin = TYPED }: { readonly message?: string; readonly origin?: Origin } = {},
) => execute(db, number, withOrigin(record(body), origin), key, message);

/** Takes back the last entry that counts. It stays in the record. */
export const undoLast = (db: Database, number: JobNumber, key: string): Promise<ActionResult> =>
  execute(db, number, { do: 'undoLast' }, key, 'Taken back; it stays in the record.');

/** Decides a command on a job that was loaded in the same transaction, and appends what follows from it. */
export async function carryOut(
  tx: Session,
  { row, board, events, shown, purpose }: JobRecord,
  command: JobCommand,
  message: string,
  by: Entrant,
): Promise<ActionResult> {
  // An entry from before answers were kept is known by its event alone.
  const known = await eventByKey(tx, by.key);
  if (known) return saved(message, { seq: known.seq });
  // Only a closing is held against good boards: they are many rows.
  const isClosing = command.do === 'record' && command.body.kind === 'close';
  const references = isClosing ? referenceTable(await listReferences(tx, board.id)) : undefined;
  const state = foldJob(shown);
  const decided = decide({ board, state, references, simulators: purpose.simulators }, command);
  if (!decided.ok) return refusedFor(decided.problems);
  if (decided.value.length === 0)
    return refused('Expected something to keep; a question is only answered.', 'badInput');
  const allowed = await withLead(
    tx,
    decided.value.map((d) => d.body),
    by,
  );
  if ('answer' in allowed) return allowed.answer;
  const { meta } = allowed;
  const appended = await appendEvents(tx, row.number, decided.value, events, meta);
  // A training job moves nothing in the stock.
  if (!row.training) for (const event of appended) await fitChosenChip(tx, row.number, event, state, meta);
  return saved(message, { seq: appended.at(-1)?.seq });
}

/** A new part that goes on is the chip that was chosen for its place: the stock then has it on the board. */
async function fitChosenChip(
  tx: Session,
  number: JobNumber,
  { body }: JobEvent,
  { route }: JobState,
  meta: EntryMeta,
): Promise<void> {
  if (body.kind !== 'partOn' || !body.fresh || route?.ref !== body.ref) return;
  const fitted = fittedChip(foldStock(await stockEventsOf(tx)), number, body.ref, route);
  if (fitted) await appendStock(tx, [fitted], { ...meta, key: `stock ${meta.key}` });
}

/** A command from outside, held against the form of its event. */
export function checkedCommand(command: JobCommand): Result<JobCommand> {
  if (command.do !== 'record') return ok(command);
  const origin = originSchema.optional().safeParse(command.origin);
  if (!origin.success) return fail('Expected where it comes from: typed, an instrument, a file or a simulator.');
  const parsed = eventBodySchema.safeParse(command.body);
  if (parsed.success) return ok({ ...command, body: parsed.data });
  const [first, ...more] = parsed.error.issues
    .slice(0, 3)
    .map((i) => ({ at: i.path.join('.'), message: `${i.message}.` }));
  return first ? failAll([first, ...more]) : fail('Expected an event.');
}
