import { availableParallelism } from 'node:os';
import { DEMO_BOARDS } from '../../demo/files';
import { inWorker } from '../bundled';
import { note, ratio, section } from '../print';
import type { OpenShare, OpenResult } from './open-world.worker';

const BOARDS = 2000;

/**
 * Hidden boards with faults inside and outside every list, one to three at once, noise of meter, temperature, contacts
 * and slips; played by the session that screens and command line use. Some hours for all 2,000 of both boards:
 * `npm run bench -- --boards 100` plays fewer.
 */
export async function benchOpenWorld(
  boards: readonly OpenShare['board'][] = DEMO_BOARDS,
  played = BOARDS,
): Promise<void> {
  section(
    `An open world: ${played} hidden boards of each kind, 10 % with a fault outside every list, 20 % two, 10 % three faults`,
  );
  for (const board of boards) {
    const all = await play(board, played);
    const count = (of: (r: OpenResult) => boolean): number => all.filter(of).length;
    const share = (of: (r: OpenResult) => boolean, from: (r: OpenResult) => boolean): number =>
      count((r) => from(r) && of(r)) / Math.max(1, count(from));
    const isOutside = (r: OpenResult): boolean => r.outside;
    const isWell = (r: OpenResult): boolean => r.cured || (r.stopped && r.outside);
    note(
      `${board}: ${count(isOutside)} outside; cured ${(
        100 *
        share(
          (r) => r.cured,
          () => true,
        )
      ).toFixed(1)} %, stopped ${(
        100 *
        share(
          (r) => r.stopped,
          () => true,
        )
      ).toFixed(1)} %, neither ${count((r) => !r.cured && !r.stopped)}`,
    );
    for (const faults of [1, 2, 3])
      note(
        `  ${faults} inside: cured ${(
          100 *
          share(
            (r) => r.cured,
            (r) => !r.outside && r.faults === faults,
          )
        ).toFixed(1)} % of ${count((r) => !r.outside && r.faults === faults)}`,
      );
    ratio(
      'cured or rightly stopped',
      share(isWell, () => true),
      'at least 0.97',
    );
    ratio(
      'outside: told before a second wrong part',
      share((r) => r.toldInTime, isOutside),
      'at least 0.90',
    );
    ratio('never an end', count((r) => r.endless) / all.length, 'at most 0');
    const minutes = (of: (r: OpenResult) => number): number => all.reduce((sum, r) => sum + of(r), 0) / all.length;
    note(
      `  mean minutes ${minutes((r) => r.minutes).toFixed(1)} against ${minutes((r) => r.checklistMinutes).toFixed(1)} of the checklist`,
    );
    ratio('minutes, own / checklist', minutes((r) => r.minutes) / minutes((r) => r.checklistMinutes), 'at most 0.60');
    ratio('calibration error inside', calibrationError(all.filter((r) => !r.outside)), 'at most 0.03');
    ratio('calibration error overall', calibrationError(all), 'at most 0.06');
  }
}

/** Expected calibration error of the chances that works were stated with, over ten bins. */
function calibrationError(results: readonly OpenResult[]): number {
  const bins = Array.from({ length: 10 }, () => ({ stated: 0, right: 0 }));
  let all = 0;
  for (const { p, right } of results.flatMap((r) => r.works)) {
    const bin = bins[Math.min(9, Math.floor(10 * p))];
    bin.stated += p;
    bin.right += Number(right);
    all++;
  }
  return bins.reduce((sum, b) => sum + Math.abs(b.stated - b.right), 0) / Math.max(1, all);
}

async function play(board: OpenShare['board'], played: number): Promise<OpenResult[]> {
  const cores = availableParallelism();
  const cut = (k: number): number => Math.round((played * k) / cores);
  const shares = Array.from({ length: cores }, (_, k): OpenShare => ({ board, from: cut(k), to: cut(k + 1) }));
  const results = await Promise.all(
    shares.map((share) => inWorker<OpenResult[]>('diagnose/open-world.worker.ts', share)),
  );
  return results.flat();
}
