import { availableParallelism } from 'node:os';
import { DEMO_BOARDS } from '../../demo/files';
import { Predictor } from '../../src/core/diagnose';
import { note, ratio, section } from '../print';
import { inWorker } from '../bundled';
import type { Share, ShareResult } from './jobs.worker';
import { World, minutesOf } from './optimum';
import { ownChoice } from './play';
import { smallBoards } from './small-boards';

const BOARDS = 2000;

/**
 * Minutes to a proven repair and share of boards proven, against a sensible fixed checklist. Some two hours on two cores
 * for all 2,000 boards: `npm run bench -- --boards 200` plays fewer.
 */
export async function benchJobs(boards: readonly Share['board'][] = DEMO_BOARDS, played = BOARDS): Promise<void> {
  section(
    `Whole jobs on ${played} boards of each kind, one fault or two: noisy readings, work, proof; the application against a fixed checklist`,
  );
  for (const board of boards) {
    const [own, fixed] = [await playShares(board, 'own', played), await playShares(board, 'checklist', played)];
    note(
      `${board}: proven ${(100 * own.proven).toFixed(1)} % against ${(100 * fixed.proven).toFixed(1)} %; mean minutes ${own.minutes.toFixed(1)} against ${fixed.minutes.toFixed(1)}`,
    );
    ratio('share proven', own.proven, 'at least 0.95');
    ratio('minutes, own / checklist', own.minutes / fixed.minutes, 'at most 0.70');
  }
}

/** Share of boards proven and mean minutes, over as many workers as there are cores. */
async function playShares(board: Share['board'], way: Share['way'], played: number): Promise<ShareResult> {
  const cores = availableParallelism();
  const file = 'diagnose/jobs.worker.ts';
  const cut = (k: number): number => Math.round((played * k) / cores);
  const shares = Array.from({ length: cores }, (_, k): Share => ({ board, way, from: cut(k), to: cut(k + 1) }));
  const results = await Promise.all(shares.map((share) => inWorker<ShareResult>(file, share)));
  const mean = (of: (r: ShareResult) => number): number => results.reduce((sum, r) => sum + of(r), 0) / played;
  return { proven: mean((r) => r.proven), minutes: mean((r) => r.minutes) };
}

/** Expected minutes on small boards against the best of all orders of tests and work. */
export function benchOptimum(): void {
  section('Small boards, error-free, one fault: the application against exhaustive search over all orders');
  for (const board of smallBoards()) {
    const world = new World(Predictor.of(board));
    const least = world.leastMinutes();
    const own = minutesOf(world, ownChoice);
    note(`${board.id}: ${world.cases.length} cases, ${own.toFixed(1)} minutes against ${least.toFixed(1)}`);
    ratio('minutes, own / best possible', own / least, 'at most 1.15');
  }
}
