import type { Database } from '../../db/client';
import { memories } from '../../db/schema';
import { temporaryDatabase } from '../../db/tests/temporary';
import { keepRecall, loadMemoryRound } from '../drills/memory';

let db: Database;
let remove: () => void;
beforeEach(async () => ({ db, remove } = await temporaryDatabase()));
afterEach(() => remove());

test('a few facts are asked; what was answered is not asked again today, and the next come up', async () => {
  const first = await loadMemoryRound(db);
  expect([first.ask.length, first.known]).toEqual([5, 0]);
  for (const { id } of first.ask)
    expect(await keepRecall(db, id, 'known', `recall ${id}`)).toMatchObject({ saved: true });
  const second = await loadMemoryRound(db);
  expect(second.known).toBe(5);
  expect(second.ask.map((f) => f.id).filter((id) => first.ask.some((f) => f.id === id))).toEqual([]);
});

test('the same answer delivered twice counts once', async () => {
  const [{ id }] = (await loadMemoryRound(db)).ask;
  await keepRecall(db, id, 'known', 'once');
  const [before] = await db.select().from(memories);
  expect(await keepRecall(db, id, 'known', 'once')).toMatchObject({ saved: true });
  expect(await db.select().from(memories)).toEqual([before]);
});

test('a fact that is not there, and an answer that is none, are refused', async () => {
  expect(await keepRecall(db, 'moon', 'known', 'a')).toMatchObject({ saved: false, code: 'notFound' });
  const [{ id }] = (await loadMemoryRound(db)).ask;
  expect(await keepRecall(db, id, 'perhaps', 'b')).toMatchObject({ saved: false, code: 'badInput' });
  expect(await db.select().from(memories)).toEqual([]);
});

test('a memory that cannot be read counts as never asked', async () => {
  const [{ id }] = (await loadMemoryRound(db)).ask;
  await keepRecall(db, id, 'withEffort', 'a');
  await db.update(memories).set({ json: '{"due": "soon"}' });
  expect((await loadMemoryRound(db)).ask.map((f) => f.id)).toContain(id);
});
