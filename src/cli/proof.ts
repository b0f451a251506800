import type { Command } from 'commander';
import { z } from 'zod';
import { partByRef } from '../core/board';
import { loggedEventSchema, reportOf, viewJob, type JobView } from '../core/job';
import { orderProofs, proveRails } from '../core/proof';
import { InputProblem, print, readBoard, readJson } from './input';

/** A rail's volts, alone or with what else was seen of it. */
const railReadingSchema = z.preprocess(
  (given) => (typeof given === 'object' ? given : { volts: given }),
  z.object({
    volts: z.number(),
    ripplePpV: z.number().min(0).max(100).optional(),
    swings: z.boolean().optional(),
  }),
);

/** A job from its board and its events in order. */
export function readJob(boardFile: string, eventsFile: string, number = 1): JobView {
  const board = readBoard(boardFile);
  const events = readJson(eventsFile, z.array(loggedEventSchema));
  const opened = events[0]?.at;
  if (opened === undefined) throw new InputProblem(`${eventsFile}: expected the events of a job; got none.`);
  return viewJob(number, opened, board, events);
}

export function addProofCommands(root: Command): void {
  const proof = root.command('proof').description('proof after the repair');
  proof
    .command('rails <board.json> <volts.json>')
    .description('rails against their windows; volts.json maps rail names to volts, or to volts, ripplePpV and swings')
    .action((boardFile: string, voltsFile: string) => {
      const board = readBoard(boardFile);
      const read = readJson(voltsFile, z.record(z.string(), railReadingSchema));
      const unknown = Object.keys(read).find((id) => !board.rails.some((r) => r.id === id));
      if (unknown) throw new InputProblem(`${voltsFile}: expected rails of ${board.id}; got "${unknown}".`);
      const { rails, next, failures, allPass } = proveRails(
        board,
        new Map(Object.entries(read).map(([id, { volts }]) => [id, volts])),
        new Map(Object.entries(read)),
      );
      print({
        allPass,
        next,
        failures,
        rails: rails.map((r) => ({
          rail: r.rail.id,
          minV: r.minV,
          maxV: r.maxV,
          measuredV: r.measuredV,
          state: r.state,
          words: r.label,
        })),
      });
    });
  proof
    .command('order <board.json> [risk.json]')
    .description('functions in the order that sends the job back soonest for least; risk.json maps parts to chances')
    .action((boardFile: string, riskFile?: string) => {
      const board = readBoard(boardFile);
      const risk = riskFile === undefined ? {} : readJson(riskFile, z.record(z.string(), z.number().min(0).max(1)));
      const unknown = Object.keys(risk).find((ref) => !partByRef(board, ref));
      if (unknown) throw new InputProblem(`${riskFile}: expected parts of ${board.id}; got "${unknown}".`);
      print(orderProofs(board.functions, new Map(Object.entries(risk))));
    });
  root
    .command('report <board.json> <events.json>')
    .description('the report of a job as data; events.json holds its events in order')
    .option('--job <number>', 'the number that the report carries', '1')
    .option('--private', 'with the bench’s notes')
    .action((boardFile: string, eventsFile: string, options: { job: string; private?: true }) => {
      print(reportOf(readJob(boardFile, eventsFile, Number(options.job)), { withPrivate: options.private ?? false }));
    });
}
