/** A closed job as something to learn on. */
import type { Database } from '@/db/client';
import { findDrill } from '@/db/drills';
import { demoBench } from '../tests/demo-bench';
import { makeDrill } from './actions';

jest.mock('next/cache', () => ({ revalidatePath: jest.fn() }));

let db: Database;
let remove: () => void;
beforeAll(async () => ({ db, remove } = await demoBench()));
afterAll(() => remove());

test('a job that was repaired becomes a drill with its fault, and without a word of its owner', async () => {
  const answer = await makeDrill(26, 'drill-26');
  expect(answer).toMatchObject({ saved: true, message: 'Begun: From the bench, job 26.' });
  const row = (await findDrill(db, answer.seq!))!;
  expect(JSON.parse(row.spec)).toMatchObject({ boardId: 'heronlog-4-c', hidden: ['F1/open'] });
  expect(row.spec).not.toMatch(/petrol|generator/);
  expect(row.parMinutes).toBeGreaterThan(0);
});

test('of an open job, or one that there is not, none is made', async () => {
  expect(await makeDrill(31, 'drill-31')).toMatchObject({
    saved: false,
    message: 'Expected a job that was closed as repaired; 31 was not: what was wrong with it nobody knows.',
  });
  expect(await makeDrill(999, 'drill-999')).toMatchObject({ saved: false });
});
