import { JOB_FIELDS } from './fields';
import type { JobEvent } from './log';
import type { JobFields, JobState } from './state';

const NAMES = Object.keys(JOB_FIELDS) as (keyof JobFields)[];

type AnyField = (typeof JOB_FIELDS)['notes'];
const fieldOf = (name: keyof JobFields): AnyField => JOB_FIELDS[name] as unknown as AnyField;

const START = Object.fromEntries(NAMES.map((name) => [name, fieldOf(name).start])) as unknown as JobFields;

/**
 * The events that count, in the order of what they are about. An undo takes its target out; a correction stands where
 * the corrected event stood, so that the board's state at that moment applies to it.
 */
export function liveEvents(events: readonly JobEvent[]): JobEvent[] {
  const bySeq = new Map(events.map((e) => [e.seq, e]));
  const rootOf = (e: JobEvent): number => {
    let root = e;
    for (let next = bySeq.get(e.replaces ?? 0); next; next = bySeq.get(next.replaces ?? 0)) root = next;
    return root.seq;
  };
  const latest = new Map<number, JobEvent>();
  for (const e of countedEvents(events)) latest.set(rootOf(e), e);
  return [...latest].sort(([a], [b]) => a - b).map(([, e]) => e);
}

/** Events that were not undone, corrected ones among them; undos left out. */
function countedEvents(events: readonly JobEvent[]): JobEvent[] {
  const undone = new Set(events.flatMap((e) => (e.body.kind === 'undo' ? [e.body.seq] : [])));
  return events.filter((e) => e.body.kind !== 'undo' && !undone.has(e.seq));
}

/** The state of a job: a fold over its events, from the first. */
export function foldJob(events: readonly JobEvent[]): JobState {
  const live = liveEvents(events);
  const undoable = lastUndoable(events);
  return { ...live.reduce(apply, START), live, ...(undoable && { undoable }) };
}

/** Every field takes what the event means for it. */
function apply(before: JobFields, { body, seq, at }: JobEvent): JobFields {
  const step = { event: { seq, at }, before };
  if (body.kind === 'reopen') {
    if (!before.closed) return before;
    const { symptom } = body;
    return mapFields(
      (field, value) => (field.reopened ? field.reopened(value, { ...step, symptom }) : field.start),
      before,
    );
  }
  return mapFields((field, value) => field.update(value, body, step), before);
}

type FieldValue = AnyField['start'];

function mapFields(change: (field: AnyField, value: FieldValue) => FieldValue, before: JobFields): JobFields {
  return Object.fromEntries(
    NAMES.map((name) => [name, change(fieldOf(name), before[name] as FieldValue)]),
  ) as unknown as JobFields;
}

/** The last event that counts, which undo takes back; the opening story stays. */
function lastUndoable(events: readonly JobEvent[]): JobEvent | undefined {
  const counted = countedEvents(events).filter((e) => e.body.kind !== 'unreadable');
  return counted.length > 1 ? counted[counted.length - 1] : undefined;
}
