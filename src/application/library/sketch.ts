import { isStandIn, parseBoardText, photoPlaceSchema, type Board, type PhotoPlace, type Side } from '../../core/board';
import { foldJob, misfits } from '../../core/job';
import { MOST_PICTURE_BYTES, hiddenInJpeg, pictureType } from '../../core/picture';
import { STAND_IN_ID, firstBoard, type Answers } from '../../core/sketch';
import { listBoardPhotos, saveBoardPhoto } from '../../db/board-photos';
import { listShelf, readBoard, saveBoard } from '../../db/boards';
import type { Database } from '../../db/client';
import { keepImage } from '../../db/images';
import { jobsOnFile, moveJob } from '../../db/jobs';
import type { Session } from '../../db/session';
import { refused, refusedFor, saved, type ActionResult } from '../action-result';
import { loadRecord } from '../jobs/load-job';
import { once } from '../once';

/** An answer that names the board it is about. */
export interface SketchResult extends ActionResult {
  readonly board?: string;
}

/**
 * Begins a board from what was answered by looking; its id is made from the device's name.
 * @param job that had no board yet: it goes over to this one, where its record fits.
 */
export async function beginSketch(db: Database, answers: Answers, key: string, job?: number): Promise<SketchResult> {
  const wanted = idOf(answers.device);
  const first = firstBoard(wanted, answers);
  if (!first.ok) return refusedFor(first.problems, 'badInput');
  let id = wanted;
  const answer = await once(db, { key, scope: 'new board', request: { answers, job } }, async (tx, { at }) => {
    const taken = new Set((await listShelf(tx)).map((b) => b.id));
    for (let n = 2; taken.has(id); n++) id = `${wanted}-${n}`;
    const board = { ...first.value, id };
    await saveBoard(tx, board, at);
    if (job !== undefined) await takeOver(tx, job, board);
    return saved(id);
  });
  // The id is the answer that is kept under the key: a repeated delivery is led to the same board.
  return answer.saved ? { ...answer, board: answer.message, message: 'Begun.' } : answer;
}

/** Puts a job that stood on the stand-in on its own board's first file, where all of its record fits. */
async function takeOver(tx: Session, number: number, board: Board): Promise<void> {
  const job = await loadRecord(tx, number);
  if (!job.ok || !isStandIn(job.value.board) || foldJob(job.value.events).closed) return;
  if (misfits(job.value.board, board, job.value.events).length === 0)
    await moveJob(tx, number, { boardId: board.id, boardRevision: 1 });
}

/** Ids are made of small letters, digits and hyphens. */
const idOf = (device: string): string =>
  device
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-+|-+$/g, '')
    .slice(0, 40) || 'board';

/**
 * Keeps a board that was worked on as the next revision of its file. Where somebody kept another meanwhile, nothing is kept.
 * Open jobs on a sketch go along with it where all of their record fits: it grows out of them.
 * @param from the revision that the work began with.
 */
export async function keepBoard(
  db: Database,
  id: string,
  from: number,
  text: string,
  key: string,
): Promise<ActionResult> {
  const parsed = parseBoardText(text);
  if (!parsed.ok) return refusedFor(parsed.problems, 'badInput');
  const board = parsed.value;
  if (board.id !== id) return refused(`Expected the file of ${id}; got that of ${board.id}.`, 'badInput');
  if (id === STAND_IN_ID)
    return refused('Expected a board of its own: this one stands in for all that are not known yet.', 'badInput');
  return once(db, { key, scope: `board ${id}`, request: { from, text } }, async (tx, { at }) => {
    const shelf = (await listShelf(tx)).find((b) => b.id === id);
    if (!shelf) return refused(`Expected a board of the library; there is no "${id}".`, 'notFound');
    if (shelf.revision !== from)
      return refused(
        `Somebody kept file ${shelf.revision} of this board meanwhile; yours began with file ${from}. Open it anew and make your changes there.`,
        'changedMeanwhile',
      );
    const revision = await saveBoard(tx, board, at);
    if (revision === from) return saved('Nothing has changed.');
    const { moved, stayed } = board.assumed?.includes('parts') ? await takeAlong(tx, board, from, revision) : NOBODY;
    const along = moved > 0 ? ` ${moved === 1 ? 'One open job is' : `${moved} open jobs are`} on it now.` : '';
    const left =
      stayed > 0
        ? ` ${stayed === 1 ? 'One job has entries' : `${stayed} jobs have entries`} that do not fit it, and stayed.`
        : '';
    return saved(`Kept as file ${revision}.${along}${left}`);
  });
}

const NOBODY = { moved: 0, stayed: 0 };

/** Moves the open jobs of a board to its new file where their record fits it. */
async function takeAlong(tx: Session, board: Board, from: number, revision: number): Promise<typeof NOBODY> {
  let [moved, stayed] = [0, 0];
  for (const number of await jobsOnFile(tx, board.id, from)) {
    const job = await loadRecord(tx, number);
    if (!job.ok || foldJob(job.value.events).closed) continue;
    if (misfits(job.value.board, board, job.value.events).length > 0) stayed++;
    else {
      await moveJob(tx, number, { boardRevision: revision });
      moved++;
    }
  }
  return { moved, stayed };
}

/** What the board editor opens. */
export async function loadSketch(db: Session, id: string) {
  const [board, shelf, photos] = await Promise.all([readBoard(db, id), listShelf(db), listBoardPhotos(db, id)]);
  const revision = shelf.find((b) => b.id === id)?.revision;
  return { board, revision, photos };
}

/** Keeps a straightened photograph of one side: a JPEG that carries nothing but its picture. */
export async function keepBoardPhoto(
  db: Database,
  id: string,
  side: Side,
  bytes: Uint8Array,
  place: PhotoPlace,
  key: string,
): Promise<ActionResult> {
  const no = (why: string): ActionResult => refused(`${why} Nothing was kept.`, 'badInput');
  if (bytes.length > MOST_PICTURE_BYTES)
    return no(`Expected a picture of at most ${MOST_PICTURE_BYTES / 1e6} MB; got ${(bytes.length / 1e6).toFixed(1)}.`);
  if (pictureType(bytes) !== 'image/jpeg') return no('Expected a JPEG picture; this file is none.');
  const hidden = hiddenInJpeg(bytes);
  if (hidden) return no(`Expected nothing but the picture; the file carries ${hidden}.`);
  const parsed = photoPlaceSchema.safeParse(place);
  if (!parsed.success) return no('Expected where the picture lies on the board, in mm.');
  return once(db, { key, scope: `board ${id}`, request: { side, place } }, async (tx, { at }) => {
    if (!(await listShelf(tx)).some((b) => b.id === id))
      return refused(`Expected a board of the library; there is no "${id}".`, 'notFound');
    const sha256 = await keepImage(tx, { bytes, name: `${side} of ${id}`, at });
    await saveBoardPhoto(tx, id, { side, sha256, place: parsed.data }, at);
    return saved(`The ${side} is kept under its drawing.`);
  });
}
