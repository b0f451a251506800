/** 10,000 closed jobs: what a question to the records takes, beside the plain reading of the same rows. Run with: npx tsx bench/records/ten-thousand.ts */
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { sql } from 'drizzle-orm';
import { loadDemo } from '../../demo/world';
import { loadYear } from '../../demo/year';
import { loadPoint, loadRecords } from '../../src/application/records/records';
import { openDatabase } from '../../src/db/client';
import { ledgerJobs } from '../../src/db/schema';

const [BASE, TIMES] = [200, 50];
const folder = mkdtempSync(path.join(tmpdir(), 'records-'));
const db = await openDatabase(`file:${path.join(folder, 'bench.db')}`, { begin: true });
await db.transaction(async (tx) => {
  await loadDemo(tx);
  await loadYear(tx, BASE);
});
// The same jobs again under other numbers, with their events.
for (let k = 1; k < TIMES; k++) {
  const by = 100_000 * k;
  for (const statement of [
    sql`insert into jobs (number, board_id, board_revision, training, opened_at) select number + ${by}, board_id, board_revision, training, opened_at from jobs where number between 1001 and 99999`,
    sql`insert into job_events (job_number, seq, key, at, bench, actor, replaces, origin, body) select job_number + ${by}, seq, key || ' ' || ${by}, at, bench, actor, replaces, origin, body from job_events where job_number between 1001 and 99999`,
    sql`insert into job_summaries (job_number, version, symptom, marks, swollen, outcome, last_at, soak, replaces) select job_number + ${by}, version, symptom, marks, swollen, outcome, last_at, soak, replaces from job_summaries where job_number between 1001 and 99999`,
    sql`insert into ledger_jobs select job_number + ${by}, closing, version, form, board_id, closed_at, outcome, is_comeback, days_good, cause, person, source, minutes, price, quoted, success_told, promised_at from ledger_jobs where job_number between 1001 and 99999`,
    sql`insert into ledger_readings (job_number, closing, board_id, point, name, value, is_open, words, phase, cause) select job_number + ${by}, closing, board_id, point, name, value, is_open, words, phase, cause from ledger_readings where job_number between 1001 and 99999`,
  ])
    await db.run(statement);
}
const [{ count }] = await db.select({ count: sql<number>`count(*)` }).from(ledgerJobs);

async function middle(work: () => Promise<unknown>): Promise<number> {
  await work();
  const times: number[] = [];
  for (let k = 0; k < 7; k++) {
    const from = performance.now();
    await work();
    times.push(performance.now() - from);
  }
  return times.toSorted((a, b) => a - b)[3];
}
const plain = await middle(() => db.select().from(ledgerJobs));
const asked = {
  'by board': () => loadRecords(db, { by: 'board' }),
  'by month, one board, one year': () =>
    loadRecords(db, { by: 'month', boardId: 'heronlog-4-c', from: '2026-01-01', before: '2027-01-01' }),
  'one point near a value': () => loadPoint(db, { boardId: 'heronlog-4-c', near: 0.3 }),
};
console.log(`${count} closings; all their rows read plainly: ${plain.toFixed(0)} ms`);
for (const [name, work] of Object.entries(asked)) {
  const ms = await middle(work);
  console.log(`${name.padEnd(34)} ${ms.toFixed(0).padStart(5)} ms, ${(ms / plain).toFixed(2)} of the plain reading`);
}
rmSync(folder, { recursive: true, force: true });
