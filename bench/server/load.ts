import { readFileSync } from 'node:fs';
import { createClient } from '@libsql/client';
import { BenchServer } from '../../e2e/server';
import { note, ratio, section } from '../print';

const JOBS = 10_000;
const EVENTS_PER_JOB = 30;
const ROUNDS = 40;
const PATHS = ['/', '/jobs', '/clocks', '/jobs?find=trouble%2042'] as const;

const AT = '2025-06-01T08:00:00.000Z';

/** Jobs as a shop of years has them: closed ones with their readings, the newest dozen open. */
async function fill(url: string): Promise<void> {
  const client = createClient({ url });
  const insert = 'insert into job_events (job_number, seq, key, at, bench, actor, body) values (?, ?, ?, ?, ?, ?, ?)';
  for (let from = 0; from < JOBS; from += 100) {
    const statements = [];
    for (let n = 1000 + from; n < 1100 + from; n++) {
      statements.push({
        sql: 'insert into jobs (number, board_id, opened_at) values (?, ?, ?)',
        args: [n, 'heronlog-4-c', AT],
      });
      for (let seq = 1; seq <= EVENTS_PER_JOB; seq++) {
        const event =
          seq === 1
            ? { type: 'story', version: 1, data: story(n) }
            : seq === EVENTS_PER_JOB
              ? { type: 'close', version: 1, data: { outcome: 'repaired', cause: '' } }
              : { type: 'note', version: 1, data: { text: `seen ${n} ${seq}` } };
        statements.push({
          sql: insert,
          args: [n, seq, `old-${n}-${seq}`, AT, 'Bench 1', 'Lead', JSON.stringify(event)],
        });
      }
    }
    await client.batch(statements, 'write');
  }
  client.close();
}

const story = (n: number) => ({
  ...{ symptom: `old trouble ${n % 97}`, history: [], dataMatters: false, locked: false, consent: true },
  pack: 'sound',
});

const p95 = (values: number[]): number => [...values].sort((a, b) => a - b)[Math.floor(0.95 * values.length)];

async function timed(url: string): Promise<{ ms: number; bytes: number }> {
  const began = performance.now();
  const answer = await fetch(url);
  const body = await answer.arrayBuffer();
  if (!answer.ok) throw new Error(`${url}: ${answer.status}`);
  return { ms: performance.now() - began, bytes: body.byteLength };
}

/** Resident memory of a process and what it started, MB. */
const residentMb = (pid: number): number =>
  Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))?.[1] ?? 0) / 1024;

/** Lists and clocks on a database of years against the demo's, alternating in one run. */
export async function benchLoad(): Promise<void> {
  section(`${JOBS} jobs and ${JOBS * EVENTS_PER_JOB} events against the demo's, alternating`);
  const [small, large] = [new BenchServer(3232), new BenchServer(3233)];
  await small.start();
  await large.start();
  await large.killHard();
  await fill(large.databaseUrl);
  const began = performance.now();
  await large.serve();
  note(`first start after the fill, summaries computed: ${((performance.now() - began) / 1000).toFixed(1)} s`);
  await large.killHard();
  const again = performance.now();
  await large.serve();
  note(`start to first page: ${((performance.now() - again) / 1000).toFixed(1)} s`);
  for (const path of PATHS) {
    const ms = { small: [] as number[], large: [] as number[] };
    let bytes = 0;
    for (let i = 0; i < ROUNDS; i++) {
      ms.small.push((await timed(small.url + path)).ms);
      const got = await timed(large.url + path);
      ms.large.push(got.ms);
      bytes = got.bytes;
    }
    ratio(
      `${path}, p95 ${p95(ms.large).toFixed(0)} ms, ${(bytes / 1000).toFixed(0)} kB`,
      p95(ms.large) / p95(ms.small),
      '<= 2',
    );
  }
  note(`resident memory: ${residentMb(large.pid!).toFixed(0)} MB`);
  await small.stop();
  await large.stop();
}
