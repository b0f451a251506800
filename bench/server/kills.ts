import { createClient } from '@libsql/client';
import { BenchServer } from '../../e2e/server';
import { note, section } from '../print';

const JOB = 31;
const CLIENTS = 4;
const AGAIN_MS = 40;
const pause = (ms: number): Promise<void> => new Promise((resolve) => setTimeout(resolve, ms));

/** Enters notes one after the other, each under one key until its answer comes, whatever happens to the server. */
async function enterUntil(url: string, client: number, ended: () => boolean, confirmed: string[]): Promise<void> {
  for (let i = 0; !ended(); i++) {
    const text = `note ${client} ${i}`;
    const body = JSON.stringify({ line: `note ${text}`, key: `kill ${client} ${i}` });
    for (;;) {
      const answer = await fetch(`${url}/jobs/${JOB}/entries`, {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body,
      }).catch(() => undefined);
      if (answer?.ok) break;
      // Nothing more is sent after the end, but what was begun is seen through.
      await pause(AGAIN_MS);
    }
    confirmed.push(text);
  }
}

/** Kills the server hard while entries come over HTTP, again and again: none may be lost, none be there twice. */
export async function benchKills(kills = 200): Promise<void> {
  section(`hard kills of the server while ${CLIENTS} clients enter over HTTP, with retries under one key`);
  const server = new BenchServer(3231);
  await server.start();
  let done = false;
  const confirmed: string[] = [];
  const clients = Array.from({ length: CLIENTS }, (_, c) => enterUntil(server.url, c, () => done, confirmed));
  for (let k = 0; k < kills; k++) {
    const before = confirmed.length;
    // Killed at no particular moment, but never before something was kept since the last time.
    while (confirmed.length <= before) await pause(5);
    await pause((k * 37) % 190);
    await server.killHard();
    server.begin();
  }
  done = true;
  await Promise.all(clients);
  const client = createClient({ url: server.databaseUrl });
  const { rows } = await client.execute(
    `select json_extract(body, '$.data.text') as text, count(*) as times from job_events
     where job_number = ${JOB} and key like 'kill %' group by text`,
  );
  client.close();
  await server.stop();
  const times = new Map(rows.map((r) => [String(r.text), Number(r.times)]));
  const lost = confirmed.filter((text) => !times.has(text)).length;
  const twice = [...times.values()].filter((n) => n > 1).length;
  note(`${kills} kills, ${confirmed.length} entries confirmed: ${lost} lost (wanted 0), ${twice} twice (wanted 0)`);
}
