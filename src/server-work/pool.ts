import { existsSync, readFileSync } from 'node:fs';
import { availableParallelism } from 'node:os';
import path from 'node:path';
import type Piscina from 'piscina';
import { TASKS, type AnswerOf, type RequestOf, type TaskName } from './tasks';

/** A thread that needs more than this is ended, MB; a view of a large board takes some hundred (measured). */
const MOST_MB = 1500;

/** The threads' code, made beside the build of the pages and named after it: code of another build is not run. */
function builtWorker(): string | undefined {
  const folder = path.join(process.cwd(), '.next');
  const id = path.join(folder, 'BUILD_ID');
  if (process.env.NODE_ENV !== 'production' || !existsSync(id)) return undefined;
  const file = path.join(folder, `server-work-${readFileSync(id, 'utf8').trim()}.mjs`);
  return existsSync(file) ? file : undefined;
}

/** One pool for the whole server: its pages and its routes are loaded apart. */
const shared = globalThis as { unisoldaPool?: Promise<Piscina | undefined> };

async function openPool(): Promise<Piscina | undefined> {
  const filename = builtWorker();
  if (filename === undefined) return undefined;
  const { default: Pool } = await import('piscina');
  return new Pool({
    filename,
    minThreads: 1,
    // One core stays with those who enter readings.
    maxThreads: Math.max(1, availableParallelism() - 1),
    idleTimeout: Infinity,
    resourceLimits: { maxOldGenerationSizeMb: MOST_MB },
  });
}

/**
 * Works in a thread beside the one that answers requests; where none was built, as in tests and on the command line, here.
 * @throws what the task throws, and an Error when its thread ended.
 */
export async function work<T extends TaskName>(task: T, request: RequestOf<T>): Promise<AnswerOf<T>> {
  // Where no thread can be had the work is done all the same.
  const pool = await (shared.unisoldaPool ??= openPool().catch((error: unknown) => void console.error(String(error))));
  if (pool) return (await pool.run({ task, request })) as AnswerOf<T>;
  return (TASKS[task] as (r: RequestOf<T>) => AnswerOf<T>)(request);
}
