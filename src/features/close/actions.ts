'use server';

import { revalidatePath } from 'next/cache';
import { calibrationFromMark } from '@/core/calibration';
import {
  beyondBoard,
  lessonName,
  closeoutRecordOf,
  viewJob,
  type JobView,
  type Outcome,
  type RunMarkSeen,
} from '@/core/job';
import { hiddenInJpeg, MOST_PICTURE_BYTES, pictureType } from '@/core/picture';
import { problemText } from '@/core/result';
import { foldStock } from '@/core/stock';
import { findBoard } from '@/db/boards';
import { database, type Database } from '@/db/client';
import { benchMeta, enter } from '@/db/enter';
import { keepImage } from '@/db/images';
import { findJob, jobEventsOf } from '@/db/jobs';
import { dropReferences, keepReferences, knowledgeOf } from '@/db/knowledge';
import { dropCalibration } from '@/db/library';
import { addReport, dropReport } from '@/db/parts';
import { calibrateFromRun, markKey, type Calibrate } from '@/db/run-calibration';
import { appendStock, stockEventsOf } from '@/db/stock';
import { lessonKey } from './lesson-key';

interface CloseAnswer {
  readonly kept: boolean;
  readonly words: string;
}

async function viewOfJob(db: Database, number: number): Promise<JobView | undefined> {
  const job = await findJob(db, number);
  const board = job && (await findBoard(db, job.boardId));
  if (!job || !board) return undefined;
  return viewJob(number, job.openedAt, board, await jobEventsOf(db, number), await knowledgeOf(db, board.id));
}

const noJob = (number: number): CloseAnswer => ({
  kept: false,
  words: `Expected a job that exists; there is no job ${number}.`,
});

/**
 * Writes back what a repaired job taught: known-good readings, which chip worked where, that it was not dead on arrival,
 * and what the run says of its station. Twice changes nothing.
 */
export async function keepLesson(number: number): Promise<CloseAnswer> {
  const db = await database();
  const view = await viewOfJob(db, number);
  if (!view) return noJob(number);
  const { references, reports, chip, mark } = closeoutRecordOf(view);
  if (references.length + reports.length === 0)
    return { kept: false, words: 'Expected a job closed as repaired, with good readings after the repair; got none.' };
  const at = new Date().toISOString();
  const name = lessonName(number, view.past.length);
  await keepReferences(db, references, at);
  for (const report of reports) await addReport(db, report, lessonKey(name), at);
  const done = [`${references.length} readings and ${reports.length} reports kept.`];
  if (chip !== undefined)
    done.push(await judgeChip(db, chip, number, 'sound', `${name} proven`, `${lessonKey(name)} ${at}`));
  if (mark) done.push(await takeMark(db, view, mark));
  revalidatePath('/', 'layout');
  return { kept: true, words: done.filter(Boolean).join(' ') };
}

/** A chip that is still on the board it was proven on gets its verdict; the stock says no to any other. */
async function judgeChip(
  db: Database,
  chip: string,
  job: number,
  condition: 'sound' | 'suspect',
  why: string,
  key: string,
): Promise<string> {
  const events = await stockEventsOf(db);
  const { place } = foldStock(events).chips.get(chip) ?? {};
  if (place?.kind !== 'fitted' || place.job !== job) return `${chip} is not on this board by the stock: not counted.`;
  const last = events.findLast(({ body }) => body.kind === 'judged' && body.chip === chip)?.body;
  if (last?.kind === 'judged' && last.condition === condition && last.why === why)
    return `${chip} is judged ${condition}.`;
  const judged = await appendStock(db, [{ kind: 'judged', chip, condition, why }], benchMeta(key));
  return judged.ok ? `${chip} is judged ${condition}.` : problemText(judged.problems);
}

async function takeMark(
  db: Database,
  { number, board }: JobView,
  { stationId, plan, seenS }: RunMarkSeen,
): Promise<string> {
  const id = stationId!;
  const calibrate: Calibrate = (on, station, run) => calibrationFromMark(on, station, run, seenS);
  const taken = await calibrateFromRun(db, { board, stationId: id, plan }, calibrate, markKey(number, id, seenS));
  return taken.ok ? `${taken.value.name} moved to the mark at ${seenS} s.` : `Station: ${problemText(taken.problems)}`;
}

/** Takes back what a job taught, this time or a time before it came back. */
export async function dropLesson(number: number, timesBack?: number): Promise<CloseAnswer> {
  const db = await database();
  const view = await viewOfJob(db, number);
  if (!view) return noJob(number);
  const then = timesBack === undefined ? view.state : view.state.priorClosures[timesBack]?.state;
  if (!then) return { kept: false, words: `Expected a time at which job ${number} was closed; got ${timesBack}.` };
  const name = lessonName(number, timesBack ?? view.past.length);
  const { chip, mark } = beyondBoard(then);
  await dropReferences(db, view.board.id, name);
  await dropReport(db, lessonKey(name));
  const done = ['Taken back: nothing of it counts any more.'];
  const key = `${lessonKey(name)} back ${new Date().toISOString()}`;
  if (chip !== undefined) await judgeChip(db, chip, number, 'suspect', `${name} taken back`, key);
  if (mark && (await dropCalibration(db, markKey(number, mark.stationId!, mark.seenS))) === 'later')
    done.push('The station was calibrated again since: it keeps its figures.');
  revalidatePath('/', 'layout');
  return { kept: true, words: done.join(' ') };
}

export interface Closing {
  readonly outcome: Outcome;
  /** What the owner is told. */
  readonly cause: string;
  /** Why it closes with gates not met. */
  readonly reason?: string;
  readonly minutes?: number;
  readonly price?: number;
}

/** Closes a job. As repaired only when all gates hold, or with a reason. */
export async function closeJob(
  number: number,
  { reason, ...closing }: Closing,
  key: string,
): Promise<{ kept: boolean; words: string }> {
  const db = await database();
  const body = { kind: 'close' as const, ...closing, reason: reason?.trim() || undefined };
  const stored = await enter(db, number, body, key);
  if (!stored.ok) return { kept: false, words: problemText(stored.problems) };
  revalidatePath('/jobs/[number]', 'layout');
  return { kept: true, words: 'Closed.' };
}

/** A closed job came back: it begins anew and knows its past. */
export async function reopenJob(number: number, symptom: string, key: string): Promise<CloseAnswer> {
  const db = await database();
  if (symptom.trim() === '') return { kept: false, words: 'Expected with what it came back; got nothing.' };
  const stored = await enter(db, number, { kind: 'reopen', symptom: symptom.trim() }, key);
  if (!stored.ok) return { kept: false, words: problemText(stored.problems) };
  revalidatePath('/', 'layout');
  return { kept: true, words: 'Open again.' };
}

/** Keeps a picture for the report: a JPEG that was masked in the browser and carries nothing but its picture. */
export async function keepPicture(number: number, form: FormData, key: string): Promise<CloseAnswer> {
  const no = (words: string): CloseAnswer => ({ kept: false, words: `${words} Nothing was kept.` });
  const file = form.get('picture');
  const words = String(form.get('words') ?? '').trim();
  const masks = Number(form.get('masks'));
  if (!(file instanceof File)) return no('Expected a picture; got none.');
  if (file.size > MOST_PICTURE_BYTES)
    return no(`Expected at most ${MOST_PICTURE_BYTES / 1e6} MB; got ${(file.size / 1e6).toFixed(1)}.`);
  if (words === '') return no('Expected what the picture shows; got nothing.');
  const bytes = new Uint8Array(await file.arrayBuffer());
  if (pictureType(bytes) !== 'image/jpeg') return no('Expected a JPEG picture; this file is none.');
  const hidden = hiddenInJpeg(bytes);
  if (hidden) return no(`Expected nothing but the picture; the file carries ${hidden}.`);
  const db = await database();
  if (!(await findJob(db, number))) return noJob(number);
  const sha256 = await keepImage(db, { bytes, name: `picture of job ${number}`, at: new Date().toISOString() });
  const stored = await enter(db, number, { kind: 'picture', sha256, words, masks }, key);
  if (!stored.ok) return no(problemText(stored.problems));
  revalidatePath('/jobs/[number]', 'layout');
  return { kept: true, words: 'Kept for the report.' };
}
