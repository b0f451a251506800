import { execFileSync, spawn, type ChildProcess } from 'node:child_process';
import { cpSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { createClient } from '@libsql/client';

const NEXT = 'node_modules/next/dist/bin/next';
const TSX = 'node_modules/tsx/dist/cli.mjs';

function eventRow(job: number, seq: number, at: string, body: object): { sql: string; args: (string | number)[] } {
  return {
    sql: 'insert into job_events (job_number, seq, key, at, bench, actor, body) values (?, ?, ?, ?, ?, ?, ?)',
    args: [job, seq, `old-${job}-${seq}`, at, 'Bench 1', 'Bench lead', JSON.stringify(body)],
  };
}

let loaded: string | undefined;

/** A folder with the demo world's database: loaded once, copied for each server. */
function demoFolder(): string {
  if (loaded) return loaded;
  const folder = mkdtempSync(path.join(tmpdir(), 'unisolda-demo-'));
  const env = { ...process.env, DATABASE_URL: `file:${path.join(folder, 'bench.db')}` };
  execFileSync(process.execPath, [TSX, 'demo/load.ts'], { env, stdio: 'pipe' });
  process.once('exit', () => rmSync(folder, { recursive: true, force: true }));
  return (loaded = folder);
}

/** The production server on a database of its own with the demo world; it can be killed hard and started again. */
export class BenchServer {
  private readonly folder = mkdtempSync(path.join(tmpdir(), 'unisolda-e2e-'));
  private readonly env: NodeJS.ProcessEnv & { DATABASE_URL: string } = {
    ...process.env,
    DATABASE_URL: `file:${path.join(this.folder, 'bench.db')}`,
    NEXT_TELEMETRY_DISABLED: '1',
  };
  private child?: ChildProcess;

  /** @param more of its environment. */
  constructor(
    private readonly port: number,
    more: Readonly<Record<string, string>> = {},
  ) {
    Object.assign(this.env, more);
  }

  get url(): string {
    return `http://127.0.0.1:${this.port}`;
  }

  async start(): Promise<void> {
    cpSync(demoFolder(), this.folder, { recursive: true });
    await this.serve();
  }

  /** A shop of its own that begins empty: no board, no job, and nothing of the demo world. */
  async startEmpty(): Promise<void> {
    this.env.UNISOLDA_NEW_SHOP = '1';
    await this.serve();
  }

  /** Adds many closed jobs straight to the database, for lists that are long. */
  async addClosedJobs(count: number): Promise<void> {
    const client = createClient({ url: this.env.DATABASE_URL });
    const at = '2025-06-01T08:00:00.000Z';
    for (let from = 1000; from < 1000 + count; from += 500) {
      const numbers = Array.from({ length: Math.min(500, 1000 + count - from) }, (_, i) => from + i);
      await client.batch(
        numbers.flatMap((n) => [
          { sql: 'insert into jobs (number, board_id, opened_at) values (?, ?, ?)', args: [n, 'heronlog-4-c', at] },
          eventRow(n, 1, at, {
            kind: 'story',
            symptom: `old trouble ${n % 97}`,
            history: [],
            dataMatters: false,
            locked: false,
            consent: true,
            pack: 'sound',
          }),
          eventRow(n, 2, at, { kind: 'close', outcome: n % 2 ? 'repaired' : 'stopped', cause: '' }),
        ]),
      );
    }
    client.close();
  }

  /** The database's address, to be looked into from outside. */
  get databaseUrl(): string {
    return this.env.DATABASE_URL;
  }

  /** The server's process, while it runs. */
  get pid(): number | undefined {
    return this.child?.pid;
  }

  /** Starts the server and does not wait for it. */
  begin(): void {
    const args = [NEXT, 'start', '-H', '127.0.0.1', '-p', String(this.port)];
    this.child = spawn(process.execPath, args, { env: this.env, stdio: 'ignore' });
  }

  async serve(): Promise<void> {
    this.begin();
    for (let tries = 0; tries < 100; tries++) {
      const answered = await fetch(this.url).then(
        (r) => r.ok,
        () => false,
      );
      if (answered) return;
      await new Promise((resolve) => setTimeout(resolve, 150));
    }
    throw new Error(`the server on port ${this.port} did not answer`);
  }

  /** Power loss: no chance to finish anything. */
  async killHard(): Promise<void> {
    if (!this.child || this.child.exitCode !== null || this.child.signalCode !== null) return;
    const ended = new Promise((resolve) => this.child!.once('exit', resolve));
    this.child!.kill('SIGKILL');
    await ended;
  }

  async stop(): Promise<void> {
    await this.killHard();
    rmSync(this.folder, { recursive: true, force: true });
  }
}
