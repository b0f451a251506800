import { encode, Image } from 'image-js';
import { FIRST_ANSWERS, STAND_IN_ID, applyBoardEdit, parseSketchLine, standInBoard } from '../../core/sketch';
import type { Board } from '../../core/board';
import type { Story } from '../../core/job';
import type { JobNumber } from '../../core/identities';
import { readBoard } from '../../db/boards';
import type { Database } from '../../db/client';
import { findJob, openJob } from '../../db/jobs';
import { listReferences } from '../../db/knowledge';
import { temporaryDatabase } from '../../db/tests/temporary';
import { enter, enterLine } from '../jobs/execute';
import { loadBoardChoices } from '../jobs/job-lists';
import { openJob as openNewJob } from '../jobs/open-job';
import { loadJob } from '../jobs/load-job';
import { addReferences, chooseBoard } from '../library/boards';
import { loadPackage, lookIntoPackage, takePackage } from '../library/packages';
import { beginSketch, keepBoard, keepBoardPhoto, loadSketch } from '../library/sketch';
import { learnFromJobs } from '../settings';

let db: Database;
let remove: () => void;
beforeEach(async () => ({ db, remove } = await temporaryDatabase()));
afterEach(() => remove());

const AT = '2026-11-29T08:00:00.000Z';
const ANSWERS = { ...FIRST_ANSWERS, device: 'Tern 1' };
const begun = async (key = 'begin'): Promise<Board> => begunBoard((await beginSketch(db, ANSWERS, key)).board!);
const begunBoard = async (id: string): Promise<Board> => {
  const board = await readBoard(db, id);
  if (!board.ok) throw new Error(board.problems[0].message);
  return board.value;
};
const edited = (board: Board, ...lines: readonly string[]): string =>
  JSON.stringify(
    lines.reduce((now, line) => {
      const read = parseSketchLine(now, line);
      const made = read.ok ? applyBoardEdit(now, read.value.edit) : read;
      if (!made.ok) throw new Error(made.problems[0].message);
      return made.value;
    }, board),
  );

const STORY: Story = {
  ...{ kind: 'story', symptom: 'does not charge', history: [], dataMatters: false, locked: false },
  ...{ consent: true, pack: 'sound' },
};
const without = async (key: string): Promise<JobNumber> =>
  (await openNewJob(db, undefined, STORY, key)).job as JobNumber;

describe('a job whose board nobody has named', () => {
  test('is opened, reckoned with and read; what stands in for its board is no board of the shop', async () => {
    const number = await without('open');
    await enterLine(db, number, 'vin 12k', 'ohm', 'r1');
    const job = await loadJob(db, number);
    expect(job).toMatchObject({ ok: true, value: { board: { id: STAND_IN_ID }, readings: [{}] } });
    expect((await loadBoardChoices(db)).boards.map((b) => b.id)).not.toContain(STAND_IN_ID);
    const file = JSON.stringify(standInBoard());
    expect(await keepBoard(db, STAND_IN_ID, 1, file, 'keep')).toMatchObject({ saved: false, code: 'badInput' });
    expect(await chooseBoard(db, number, STAND_IN_ID, false)).toMatchObject({ saved: false, code: 'notFound' });
    // A second such job finds the same file, not another revision of it.
    expect((await findJob(db, await without('again')))!.boardRevision).toBe(1);
  });

  test('goes over to the board that is begun for it, and grows with it', async () => {
    const number = await without('open');
    await enterLine(db, number, 'vin 12k', 'ohm', 'r1');
    const { board } = await beginSketch(db, ANSWERS, 'begin', number);
    expect(await findJob(db, number)).toMatchObject({ boardId: board, boardRevision: 1 });
    await keepBoard(db, board!, 1, edited(await begunBoard(board!), 'add c14 on vin'), 'keep');
    const job = await loadJob(db, number);
    expect(job.ok && [job.value.board.id, job.value.readings.length]).toEqual([board, 1]);
    // A job that has its board already is not taken to another.
    const second = await beginSketch(db, ANSWERS, 'other', number);
    expect((await findJob(db, number))!.boardId).not.toBe(second.board);
  });

  test('is put on a board of the library, once what does not fit was said and agreed to; a closed job stays', async () => {
    const number = await without('open');
    await enterLine(db, number, 'off u1', 'ohm', 'r1');
    const said = await chooseBoard(db, number, 'heronlog-4-c', false);
    expect(said).toMatchObject({ saved: false, problems: [expect.stringContaining('U1')] });
    expect((await findJob(db, number))!.boardId).toBe(STAND_IN_ID);
    expect(await chooseBoard(db, number, 'heronlog-4-c', true)).toMatchObject({ saved: true });
    expect(await loadJob(db, number)).toMatchObject({ ok: true, value: { board: { id: 'heronlog-4-c' } } });
    const closed = await without('another');
    await enter(db, closed, { kind: 'close', outcome: 'stopped', cause: '' }, 'close');
    expect(await chooseBoard(db, closed, 'heronlog-4-c', true)).toMatchObject({
      saved: false,
      message: expect.stringContaining('is closed'),
    });
    // Without a board of its own a job teaches nothing of any board.
    expect((await learnFromJobs(db)).jobs).toBe(0);
  });
});

describe('a sketch', () => {
  test('is begun once for one press, and again under another name for another', async () => {
    const first = await beginSketch(db, ANSWERS, 'k1');
    expect(first).toMatchObject({ saved: true, board: 'tern-1' });
    expect(await beginSketch(db, ANSWERS, 'k1')).toMatchObject({ saved: true, board: 'tern-1' });
    expect(await beginSketch(db, ANSWERS, 'k2')).toMatchObject({ saved: true, board: 'tern-1-2' });
    const bad = await beginSketch(db, { ...ANSWERS, device: ' ' }, 'k3');
    expect(bad).toMatchObject({ saved: false, message: expect.stringContaining('Name of the device') });
  });

  test('takes its open jobs along where their record fits, and leaves the others with a word', async () => {
    const board = await begun();
    const fits = await openJob(db, board.id, AT);
    const named = await openJob(db, board.id, AT);
    await enterLine(db, fits, 'vin 12k', 'ohm', 'r1');
    await enterLine(db, named, 'off u1', 'ohm', 'r2');
    const answer = await keepBoard(db, board.id, 1, edited(board, 'u4 is the controller', 'add c14 on vin'), 'keep');
    expect(answer).toMatchObject({
      saved: true,
      message: 'Kept as file 2. One open job is on it now. One job has entries that do not fit it, and stayed.',
    });
    expect([(await findJob(db, fits))!.boardRevision, (await findJob(db, named))!.boardRevision]).toEqual([2, 1]);
    const job = await loadJob(db, fits);
    expect(job.ok && job.value.board.parts.some((p) => p.ref === 'C14')).toBe(true);
    expect(job.ok && job.value.readings.length).toBe(1);
  });

  test('kept by two from the same file: the second is told, and nothing of the first is lost', async () => {
    const board = await begun();
    await keepBoard(db, board.id, 1, edited(board, 'add c14 on vin'), 'a');
    const second = await keepBoard(db, board.id, 1, edited(board, 'add c15 on vsys'), 'b');
    expect(second).toMatchObject({ saved: false, code: 'changedMeanwhile' });
    const now = await readBoard(db, board.id);
    expect(now.ok && now.value.parts.some((p) => p.ref === 'C14')).toBe(true);
    // The same press again gets the same answer.
    expect(await keepBoard(db, board.id, 1, edited(board, 'add c14 on vin'), 'a')).toMatchObject({ saved: true });
  });

  test.each([
    [
      'another board’s file',
      (b: Board) => JSON.stringify({ ...b, id: 'other' }),
      'Expected the file of tern-1; got that of other.',
    ],
    ['no board', () => '{}', 'expected'],
  ])('refuses %s', async (_words, text, message) => {
    const board = await begun();
    const answer = await keepBoard(db, board.id, 1, text(board), 'k');
    expect(answer.saved).toBe(false);
    expect(answer.message.toLowerCase()).toContain(message.toLowerCase());
  });
});

const PLACE = { widthMm: 60, heightMm: 40, pxPerMm: 10, doubtMm: 0.05 };
const encodeJpeg = (shade: number): Uint8Array =>
  encode(new Image(16, 16, { data: new Uint8Array(16 * 16 * 3).fill(shade), colorModel: 'RGB' }), { format: 'jpg' });

describe('a photograph of a board', () => {
  test('lies under its side until another takes its place', async () => {
    const { id } = await begun();
    expect(await keepBoardPhoto(db, id, 'front', encodeJpeg(80), PLACE, 'p1')).toMatchObject({ saved: true });
    expect(await keepBoardPhoto(db, id, 'front', encodeJpeg(160), PLACE, 'p2')).toMatchObject({ saved: true });
    const { photos } = await loadSketch(db, id);
    expect(photos).toHaveLength(1);
    expect(photos[0]).toMatchObject({ side: 'front', place: PLACE });
  });

  test('is refused where it is no JPEG, lies nowhere, or belongs to no board', async () => {
    const { id } = await begun();
    const no = async (...[board, bytes, at]: [string, Uint8Array, object]) =>
      (await keepBoardPhoto(db, board, 'back', bytes, at as typeof PLACE, crypto.randomUUID())).message;
    expect(await no(id, new Uint8Array([1, 2, 3]), PLACE)).toContain('Expected a JPEG picture');
    expect(await no(id, encodeJpeg(9), { ...PLACE, widthMm: -1 })).toContain('Expected where the picture lies');
    expect(await no('nowhere', encodeJpeg(9), PLACE)).toContain('there is no "nowhere"');
  });
});

describe('a board package', () => {
  const ids = async (bytes: Uint8Array): Promise<string[]> => {
    const look = await lookIntoPackage(db, bytes);
    if (!look.ok) throw new Error(look.problems[0].message);
    return look.value.differences.map((d) => d.id);
  };
  const packed = async (id: string): Promise<Uint8Array> => {
    const bytes = await loadPackage(db, id);
    if (!bytes.ok) throw new Error(bytes.problems[0].message);
    return bytes.value;
  };

  test('goes to another shop whole, with its photograph and its good boards', async () => {
    const { id } = await begun();
    await keepBoardPhoto(db, id, 'front', encodeJpeg(70), PLACE, 'p1');
    await addReferences(db, id, `board,point,value,source\n${id},ohm:VIN,41000,good board 1\n`);
    const bytes = await packed(id);
    const other = await temporaryDatabase();
    try {
      expect(await lookIntoPackage(other.db, bytes)).toMatchObject({
        ok: true,
        value: { isNew: true, differences: [] },
      });
      expect(await takePackage(other.db, bytes, [], 't')).toMatchObject({ saved: true });
      expect((await loadSketch(other.db, id)).photos).toHaveLength(1);
      expect(await listReferences(other.db, id)).toHaveLength(1);
      const again = await loadPackage(other.db, id);
      expect(again.ok && again.value).toEqual(bytes);
    } finally {
      other.remove();
    }
  });

  test('of a board that is there brings the chosen lines only; corrections of both stay', async () => {
    const board = await begun();
    await keepBoard(db, board.id, 1, edited(board, 'add c14 on vin', 'vsys is 8.4 v'), 'theirs');
    const theirs = await packed(board.id);
    await keepBoard(db, board.id, 2, edited(board, 'add c15 on vsys'), 'mine');
    expect(await ids(theirs)).toEqual(['parts C15', 'parts C14', 'rails VSYS']);
    expect(await takePackage(db, theirs, ['parts C14'], 't')).toMatchObject({ message: '1 line taken: file 4.' });
    const now = await readBoard(db, board.id);
    const refs = now.ok ? now.value.parts.map((p) => p.ref) : [];
    expect(refs).toEqual(expect.arrayContaining(['C14', 'C15']));
    expect(await ids(theirs)).toEqual(['parts C15', 'rails VSYS']);
  });

  test('that is damaged changes nothing', async () => {
    const { id } = await begun();
    const bytes = (await packed(id)).slice(0, 400);
    expect(await takePackage(db, bytes, [], 't')).toMatchObject({ saved: false, code: 'badInput' });
    expect((await readBoard(db, id, 2)).ok).toBe(false);
  });
});
