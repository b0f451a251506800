/** A board made from open files goes into the library, and every board comes out as files. */
import { demoBoard } from '../../../demo/files';
import { demoBench } from '../tests/demo-bench';
import { boardFile } from '@/features/library/board-file';
import { parseBoard } from '@/core/board';
import { foreignBoard, placementTable } from '@/core/import';
import { draftBoard, fitPlacements, withPlacements } from '@/core/netlist';
import type { Database } from '@/db/client';
import { findBoard } from '@/db/boards';
import { addDraft } from './actions';

jest.mock('next/cache', () => ({ revalidatePath: jest.fn() }));

let db: Database;
let remove: () => void;
beforeAll(async () => ({ db, remove } = await demoBench()));
afterAll(() => remove());

const heron = demoBoard('heronlog-4-c');

test('a completed draft is added once; what does not fit or is there already changes nothing', async () => {
  const made = { ...heron, id: 'from-open-files' };
  expect(await addDraft(JSON.stringify({ ...made, rails: [] }))).toMatchObject({ saved: false });
  expect(await findBoard(db, 'from-open-files')).toBeUndefined();
  expect(await addDraft(JSON.stringify(made))).toMatchObject({ saved: true });
  expect(await findBoard(db, 'from-open-files')).toMatchObject({ device: heron.device });
  const again = await addDraft(JSON.stringify({ ...made, device: 'Another' }));
  expect(again.message).toMatch(/^Expected an id that no board has yet; got from-open-files/);
  expect(await findBoard(db, 'from-open-files')).toMatchObject({ device: heron.device });
  expect((await addDraft('{')).message).toMatch(/^Expected a board file in JSON/);
});

test('a board is given out as board file, netlist, parts list and drawings, each of which reads back', async () => {
  const text = async (file: string): Promise<string> => (await boardFile('heronlog-4-c', file)).text();
  const board = parseBoard(JSON.parse(await text('board.json')));
  expect(board.ok && board.value.parts.length).toBe(heron.parts.length);
  const bytes = async (file: string) => ({ name: file, bytes: new TextEncoder().encode(await text(file)) });
  const netlist = foreignBoard.read(await bytes('netlist.ipc'), {});
  const placed = placementTable.read(await bytes('parts.csv'), {});
  if (netlist.kind === 'refused' || placed.kind === 'refused') throw new Error('expected files that are read');
  const { foreign, inference } = netlist.value!;
  expect(foreign.parts.length).toBe(heron.parts.length + heron.points.length);
  expect(placed.value!.placements.map((p) => p.ref)).toEqual(heron.parts.map((p) => p.ref));
  // Together they make the draft again, every part where it was.
  const fit = fitPlacements(foreign, placed.value!);
  if (!fit.ok) throw new Error(fit.problems[0].message);
  const again = draftBoard('again', withPlacements(foreign, placed.value!, fit.value), inference);
  const { parts } = again.board as unknown as { parts: { ref: string; xMm: number }[] };
  const shift = parts[0].xMm - heron.parts[0].xMm;
  for (const part of parts) expect(part.xMm - shift).toBeCloseTo(heron.parts.find((p) => p.ref === part.ref)!.xMm, 2);
  for (const side of ['front', 'back']) expect(await text(`${side}.svg`)).toContain('<svg xmlns');
});

test('an unknown board or file is named in a sentence', async () => {
  const missing = await boardFile('nowhere', 'board.json');
  expect([missing.status, await missing.text()]).toEqual([404, expect.stringContaining('nowhere')]);
  const odd = await boardFile('heronlog-4-c', 'board.exe');
  expect([odd.status, await odd.text()]).toEqual([404, expect.stringMatching(/^Expected one of board\.json/)]);
});
