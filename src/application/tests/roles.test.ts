/** Who enters is said by the sign-in; what an apprentice may not do alone needs a lead's word, once. */
import { demoPartTypes } from '../../../demo/files';
import type { Story } from '../../core/job';
import type { Database } from '../../db/client';
import { jobEventsOf } from '../../db/jobs';
import { savePartType } from '../../db/parts';
import { checkSeals } from '../../db/seals';
import { stockEventsOf } from '../../db/stock';
import { temporaryDatabase } from '../../db/tests/temporary';
import { keepConfirmation } from '../access/needs-lead';
import { tellPersonsBy, type Person, type Role } from '../access/person';
import { enter, enterLine } from '../jobs/execute';
import { openJob } from '../jobs/open-job';
import { enterStockLine } from '../stock/stock';

let db: Database;
let remove: () => void;
let person: Person | undefined;
tellPersonsBy(async () => person);
const as = (role: Role, sessionId: string = role): Person => ({
  name: `the ${role}`,
  role,
  bench: 'Bench 7',
  sessionId,
});

beforeEach(async () => {
  ({ db, remove } = await temporaryDatabase());
  for (const type of demoPartTypes()) await savePartType(db, type);
  person = undefined;
});
afterEach(() => {
  person = undefined;
  remove();
});

const STORY: Story = {
  kind: 'story',
  ...{ symptom: 'no light', history: [], dataMatters: false, locked: false, consent: true, pack: 'sound' },
};
const job = async (): Promise<number> => (await openJob(db, 'heronlog-4-c', STORY, `device ${Math.random()}`)).job!;

test('an entry carries the person and the bench of the sign-in; without accounts those of the machine', async () => {
  const number = await job();
  person = as('technician');
  expect((await enterLine(db, number, 'tp7 1.62 ohm', 'ohm', 'k1')).saved).toBe(true);
  const [opened, read] = await jobEventsOf(db, number);
  expect([opened.actor, opened.bench]).toEqual(['Bench lead', 'Bench 1']);
  expect([read.actor, read.bench]).toEqual(['the technician', 'Bench 7']);
});

describe('what an apprentice may not do alone', () => {
  const open = (key: string) => enterStockLine(db, 'd-1 opened', key);
  beforeEach(async () => {
    for (const line of ['donor heronlog-4-c at 20 u4', 'd-1 works charge'])
      expect(await enterStockLine(db, line, line)).toMatchObject({ saved: true });
  });

  test('is refused with a sentence, and nothing is kept', async () => {
    person = as('apprentice');
    const before = (await stockEventsOf(db)).length;
    expect(await open('a')).toMatchObject({ saved: false, code: 'needsLead' });
    expect((await open('a')).message).toMatch(/^Opening a donor needs a lead's word/);
    expect(await stockEventsOf(db)).toHaveLength(before);
    const number = await job();
    expect(
      await enter(db, number, { kind: 'close', outcome: 'stopped', cause: '', reason: 'no part' }, 'c'),
    ).toMatchObject({
      saved: true,
    });
  });

  test('is done with a lead’s word for this sign-in, which stands in the entry and counts once', async () => {
    person = as('apprentice', 'here');
    await keepConfirmation(db, 'Mira', 'elsewhere', new Date());
    expect(await open('b')).toMatchObject({ saved: false });
    await keepConfirmation(db, 'Mira', 'here', new Date(Date.now() - 10 * 60_000));
    expect(await open('c')).toMatchObject({ saved: false });
    await keepConfirmation(db, 'Mira', 'here', new Date());
    expect(await open('d')).toMatchObject({ saved: true });
    const opened = (await stockEventsOf(db)).at(-1)!;
    expect([opened.body.kind, opened.actor]).toEqual(['donorOpened', "the apprentice, with Mira's word"]);
    await enterStockLine(db, 'donor heronlog-4-c at 20 u4', 'second');
    expect(await enterStockLine(db, 'd-2 opened', 'e')).toMatchObject({ saved: false });
  });

  test('a lead and a technician do alone', async () => {
    for (const role of ['technician', 'lead'] as const) {
      person = as(role);
      await enterStockLine(db, 'donor heronlog-4-c at 20 u4', role);
    }
    person = as('technician');
    expect(await open('f')).toMatchObject({ saved: true });
  });
});

test('whatever is entered is sealed: the chain holds', async () => {
  const number = await job();
  for (const line of ['tp7 1.62 ohm', 'off u4', 'tp7 30k ohm']) await enterLine(db, number, line, 'ohm', line);
  const { jobs, stock } = await checkSeals(db);
  expect([jobs.broken, stock.broken, jobs.before]).toEqual([undefined, undefined, 0]);
  expect(jobs.sealed).toBe((await jobEventsOf(db, number)).length);
});
