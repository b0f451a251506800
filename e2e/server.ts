import { execFileSync, spawn, type ChildProcess } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';

const NEXT = 'node_modules/next/dist/bin/next';
const TSX = 'node_modules/tsx/dist/cli.mjs';

/** The production server on a database of its own with the demo world; it can be killed hard and started again. */
export class BenchServer {
  private readonly folder = mkdtempSync(path.join(tmpdir(), 'unisolda-e2e-'));
  private readonly env = {
    ...process.env,
    DATABASE_URL: `file:${path.join(this.folder, 'bench.db')}`,
    NEXT_TELEMETRY_DISABLED: '1',
  };
  private child?: ChildProcess;

  constructor(private readonly port: number) {}

  get url(): string {
    return `http://127.0.0.1:${this.port}`;
  }

  async start(): Promise<void> {
    execFileSync(process.execPath, [TSX, 'demo/load.ts'], { env: this.env, stdio: 'pipe' });
    await this.serve();
  }

  async serve(): Promise<void> {
    const args = [NEXT, 'start', '-H', '127.0.0.1', '-p', String(this.port)];
    this.child = spawn(process.execPath, args, { env: this.env, stdio: 'ignore' });
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
