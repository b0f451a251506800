import { demoBench } from '../tests/demo-bench';
import type { Story } from '@/core/job';
import { findBoard } from '@/db/boards';
import type { Database } from '@/db/client';
import { jobEventsOf } from '@/db/jobs';
import { keepStory, openNewJob } from '../arrive/actions';
import { closeJob } from '../close/actions';
import { loadReport } from '../close/queries';
import { reportPdf } from '../close/report-pdf';
import { loadStations } from '../heat/queries';
import { loadJob } from '../job/queries';
import { enterLine } from '../job/actions';
import { loadBoardChoices, loadJobPage } from '../jobs/queries';
import { addBoard } from '../library/actions';
import { loadLibrary } from '../library/queries';
import { loadBench } from './queries';

jest.mock('next/cache', () => ({ revalidatePath: jest.fn() }));
jest.mock('@react-pdf/renderer', () => ({
  Document: 'Document',
  Page: 'Page',
  Text: 'Text',
  View: 'View',
  Font: { register: jest.fn() },
  StyleSheet: { create: (style: unknown) => style },
  renderToBuffer: async (element: unknown) => Buffer.from(JSON.stringify(element)),
}));

let db: Database;
let remove: () => void;
beforeAll(async () => ({ db, remove } = await demoBench()));
afterAll(() => remove());

const story = (more: Partial<Story> = {}): Story => ({
  kind: 'story',
  symptom: 'no light',
  history: [],
  dataMatters: false,
  locked: false,
  consent: true,
  pack: 'sound',
  ...more,
});

describe('today at the bench', () => {
  test('a swollen pack is first, then the shortest next steps; closed jobs are counted, not shown', async () => {
    const { open, closedCount } = await loadBench();
    expect(open[0]).toMatchObject({ number: 30, urgent: true, stage: 'arrive' });
    const minutes = open.slice(1).map((r) => r.minutes ?? 20);
    expect(minutes).toEqual([...minutes].sort((a, b) => a - b));
    expect(closedCount).toBe(1);
    expect(open.map((r) => r.number)).not.toContain(26);
  });

  test('a job that waits for a delivery comes last; one that is overdue is asked for; one that came is as before', async () => {
    const rowOf34 = async () => {
      const { open } = await loadBench();
      return { row: open.find((r) => r.number === 34)!, place: open.findIndex((r) => r.number === 34), open };
    };
    const before = await rowOf34();
    const soon = new Date(Date.now() + 3 * 24 * 3_600_000).toISOString().slice(0, 10);
    await enterLine(34, `awaits ${soon} donor board`, 'ohm', 'awaits-1');
    const waits = await rowOf34();
    expect(waits.row.next).toBe(`Waits for donor board, expected ${soon}`);
    expect(waits.open.slice(waits.place + 1).every((r) => r.training || r.waits)).toBe(true);
    await enterLine(34, 'awaits 2020-01-06 donor board', 'ohm', 'awaits-2');
    expect((await rowOf34()).row).toMatchObject({
      next: 'Ask for donor board: it was expected 2020-01-06',
      minutes: 3,
    });
    await enterLine(34, 'awaits here', 'ohm', 'awaits-3');
    expect((await rowOf34()).row).toEqual(before.row);
  });

  test('a question at the entry line is answered, and nothing is kept of it', async () => {
    const events = (await jobEventsOf(db, 31)).length;
    const answer = await enterLine(31, 'why tp9', 'ohm', 'why-1');
    expect(answer).toMatchObject({ saved: false, answered: true });
    expect(answer.message).toMatch(/^TP9 to ground, resistance: \d\.\d\d bit in .+, job in .+ what is proposed\./);
    expect(await enterLine(31, 'why nothing', 'ohm', 'why-2')).toMatchObject({ saved: false, code: 'badInput' });
    expect(await enterLine(31_000, 'why tp9', 'ohm', 'why-3')).toMatchObject({ saved: false, code: 'notFound' });
    expect(await jobEventsOf(db, 31)).toHaveLength(events);
  });

  test('the list of all jobs carries device, symptom and outcome', async () => {
    const { jobs } = await loadJobPage('', 0);
    expect(jobs).toHaveLength(12);
    expect(jobs.find((j) => j.number === 26)).toMatchObject({ outcome: 'repaired', device: 'Heronlog 4, power board' });
    expect(jobs.find((j) => j.number === 27)!.symptom).toMatch(/flood/);
  });

  test('boards and stations of the demo world are there', async () => {
    expect((await loadBoardChoices()).boards.map((b) => b.id)).toEqual(['heronlog-4-c', 'marshdesk-2-b']);
    expect((await loadStations()).map((s) => s.id)).toEqual(['bench-1', 'bench-2']);
  });
});

describe('taking a device in', () => {
  test('opens a job with its story', async () => {
    const { job: number } = await openNewJob('heronlog-4-c', story({ history: ['unknownCharger'] }), 'new-1');
    const job = (await loadJob(number!))!;
    expect(job.state.story!.symptom).toBe('no light');
    expect(job.next.stage).toBe('outside');
  });

  test('opens nothing without a symptom, or on a board that is not known', async () => {
    const before = (await loadJobPage('', 0)).total;
    expect(await openNewJob('heronlog-4-c', story({ symptom: '  ' }), 'new-2')).toMatchObject({
      message: 'Expected the symptom in the owner’s words; got nothing.',
    });
    expect(await openNewJob('nothing', story(), 'new-3')).toMatchObject({
      message: 'Expected a board of the library; there is no "nothing".',
    });
    expect((await loadJobPage('', 0)).total).toBe(before);
  });

  test('a later story corrects the earlier one, which stays in the record', async () => {
    await keepStory(33, story({ symptom: 'middle socket dead, after a fall', history: ['fall'] }), 'story-33');
    const job = (await loadJob(33))!;
    expect(job.state.story!.history).toEqual(['fall']);
    expect(job.readings).toHaveLength(2);
    expect((await jobEventsOf(db, 33)).filter((e) => e.body.kind === 'story')).toHaveLength(2);
  });
});

describe('closing', () => {
  test('as repaired is refused while gates are not met, and names them', async () => {
    const answer = await closeJob(27, { outcome: 'repaired', cause: 'flood' }, 'close-27-a');
    expect(answer.saved).toBe(false);
    expect(answer.message).toMatch(
      /^Expected all gates to hold, or a reason\. Not yet: all rails in their windows \(CHG5 not yet/,
    );
    expect((await loadJob(27))!.state.closed).toBeUndefined();
  });

  test('with a named reason it closes, and the report prints it', async () => {
    expect(
      await closeJob(
        27,
        { outcome: 'repaired', cause: 'flood', reason: 'the owner leaves today', minutes: 45, price: 120 },
        'close-27-b',
      ),
    ).toMatchObject({
      saved: true,
    });
    const report = (await loadReport(27))!;
    expect(report).toMatchObject({ outcome: 'Repaired', reason: 'the owner leaves today', cause: 'flood' });
    expect((await reportPdf(report)).toString()).toContain('the owner leaves today');
  });

  test('stopping needs no gates', async () => {
    expect(await closeJob(28, { outcome: 'stopped', cause: 'board bent' }, 'close-28')).toMatchObject({ saved: true });
    expect(await closeJob(4711, { outcome: 'stopped', cause: '' }, 'close-x')).toMatchObject({ saved: false });
    expect(await loadReport(4711)).toBeUndefined();
  });

  test('ohms are written out for the PDF’s font', async () => {
    await enterLine(31, 'tp7 1.6 ohm', 'ohm', 'pdf-ohm');
    await closeJob(31, { outcome: 'returned', cause: '4.7 kΩ where 6.6 kΩ belongs' }, 'close-31');
    const text = (await reportPdf((await loadReport(31))!)).toString();
    expect(text).toContain('4.7 kohm where 6.6 kohm belongs');
    expect(text).not.toContain('Ω');
  });
});

describe('board files', () => {
  test('a malformed file is explained and changes nothing', async () => {
    const before = (await loadLibrary()).boards;
    const answer = await addBoard('{ "format": "unisolda-board/1" }');
    expect(answer.saved).toBe(false);
    expect(answer.problems!.some((p) => p.startsWith('parts: '))).toBe(true);
    expect((await loadLibrary()).boards).toEqual(before);
  });

  test('a good file is added, and again under the same id makes a revision', async () => {
    const copy = { ...(await findBoard(db, 'heronlog-4-c'))!, id: 'heronlog-4-d', revision: 'D' };
    expect((await addBoard(JSON.stringify(copy))).message).toBe(
      'Heronlog 4, power board, revision D: added, 80 parts.',
    );
    expect((await addBoard(JSON.stringify({ ...copy, name: 'power board, late' }))).message).toBe(
      'Heronlog 4, power board, late, revision D: kept as file 2, 80 parts. Open jobs stay on the file they were opened with.',
    );
    expect((await loadLibrary()).boards).toHaveLength(3);
  });
});
