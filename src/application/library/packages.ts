import {
  boardDifferences,
  mergeBoard,
  openPackage,
  packBoard,
  type BoardDifference,
  type BoardPackage,
} from '../../core/board-package';
import { referenceProblem } from '../../core/diagnose';
import { ok, type Result } from '../../core/result';
import { listBoardPhotos, saveBoardPhoto } from '../../db/board-photos';
import { findBoard, listShelf, readBoard, saveBoard } from '../../db/boards';
import type { Database } from '../../db/client';
import { imageBytes, keepImage } from '../../db/images';
import { keepReferences, listReferences } from '../../db/knowledge';
import type { Session } from '../../db/session';
import { refused, refusedFor, saved, type ActionResult } from '../action-result';
import { once } from '../once';

/** A board with all that belongs to it as one archive; why there is none where it cannot be read. */
export async function loadPackage(db: Session, id: string): Promise<Result<Uint8Array>> {
  const board = await readBoard(db, id);
  if (!board.ok) return board;
  const [photos, references] = await Promise.all([listBoardPhotos(db, id), listReferences(db, id)]);
  const pictures: BoardPackage['photos'][number][] = [];
  for (const { side, place, sha256 } of photos) {
    const jpeg = await imageBytes(db, sha256);
    if (jpeg) pictures.push({ side, place, jpeg });
  }
  return ok(packBoard({ board: board.value, photos: pictures, references }));
}

/** What a package would bring: a new board, or lines in which it differs from the one that is there. */
export interface PackageLook {
  readonly board: string;
  readonly name: string;
  readonly isNew: boolean;
  readonly differences: readonly (Pick<BoardDifference, 'kind' | 'summary'> & { readonly id: string })[];
  /** What comes along in any case: photographs of sides that have none, readings of good boards. */
  readonly along: readonly string[];
}

/** How a line is named from the page that shows it to the entry that takes it. */
const lineId = ({ section, name }: BoardDifference): string => `${section} ${name}`;

/** Looks into a package; nothing is kept. */
export async function lookIntoPackage(db: Session, bytes: Uint8Array): Promise<Result<PackageLook>> {
  const opened = openPackage(bytes);
  if (!opened.ok) return opened;
  const { board, photos, references } = opened.value;
  const mine = await findBoard(db, board.id);
  const known = new Set((await listBoardPhotos(db, board.id)).map((p) => p.side));
  return ok({
    board: board.id,
    name: `${board.device}, ${board.name}, revision ${board.revision}`,
    isNew: mine === undefined,
    differences: mine
      ? boardDifferences(mine, board).map((d) => ({ id: lineId(d), kind: d.kind, summary: d.summary }))
      : [],
    along: [
      ...photos.filter((p) => !known.has(p.side)).map((p) => `a photograph of the ${p.side}`),
      ...(references.length > 0 ? [`${references.length} readings of good boards`] : []),
    ],
  });
}

/**
 * Takes a package in: a new board whole; of one that is there the lines that were chosen, as a new revision of its file. Photographs
 * come where a side has none, readings of good boards as an import that can be taken back.
 */
export async function takePackage(
  db: Database,
  bytes: Uint8Array,
  taken: readonly string[],
  key: string,
): Promise<ActionResult> {
  const opened = openPackage(bytes);
  if (!opened.ok) return refusedFor(opened.problems, 'badInput');
  const { board: theirs, photos, references } = opened.value;
  const unfit = references.map((r) => referenceProblem(theirs, r)).find((p) => p !== undefined);
  if (unfit !== undefined) return refused(`references.csv: ${unfit}`, 'badInput');
  return once(db, { key, scope: `board ${theirs.id}`, request: { package: theirs.id, taken } }, async (tx, { at }) => {
    const shelf = (await listShelf(tx)).find((b) => b.id === theirs.id);
    const merged = shelf ? await mergedWith(tx, theirs, taken) : ok(theirs);
    if (!merged.ok) return refusedFor(merged.problems);
    const revision = await saveBoard(tx, merged.value, at);
    const known = new Set((await listBoardPhotos(tx, theirs.id)).map((p) => p.side));
    for (const { side, place, jpeg } of photos) {
      if (known.has(side)) continue;
      const sha256 = await keepImage(tx, { bytes: jpeg, name: `${side} of ${theirs.id}`, at });
      await saveBoardPhoto(tx, theirs.id, { side, sha256, place }, at);
    }
    const fitting = references.filter(
      (r) => r.boardId === theirs.id && referenceProblem(merged.value, r) === undefined,
    );
    await keepReferences(tx, fitting, at, key);
    return saved(
      shelf
        ? `${taken.length} ${taken.length === 1 ? 'line' : 'lines'} taken: file ${revision}.`
        : `${theirs.device}, ${theirs.name}: added.`,
    );
  });
}

async function mergedWith(
  tx: Session,
  theirs: BoardPackage['board'],
  taken: readonly string[],
): Promise<Result<BoardPackage['board']>> {
  const mine = await readBoard(tx, theirs.id);
  if (!mine.ok) return mine;
  const chosen = boardDifferences(mine.value, theirs).filter((d) => taken.includes(lineId(d)));
  return mergeBoard(mine.value, chosen);
}
