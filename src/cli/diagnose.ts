import type { Command } from 'commander';
import { z } from 'zod';
import type { Board } from '../core/board';
import {
  HISTORY_FLAGS,
  Predictor,
  accessFor,
  checkReading,
  measurementTitle,
  proposeTests,
  readingSchema,
  suspects,
  updateBelief,
  type Access,
  type Belief,
} from '../core/diagnose';
import { complain, print, readBoard, readJson } from './input';

const casesSchema = z.object({
  history: z.array(z.enum(HISTORY_FLAGS)).default([]),
  readings: z.array(readingSchema).default([]),
});
type Case = z.infer<typeof casesSchema>;

export function addDiagnoseCommands(root: Command): void {
  const diagnose = root.command('diagnose').description('suspects and the next test, from readings');
  diagnose
    .command('rank <board.json> <readings.json>')
    .description('suspects with their odds')
    .action((boardFile: string, readingsFile: string) => {
      const { belief } = load(boardFile, readingsFile);
      print({
        suspects: suspects(belief)
          .slice(0, 10)
          .map(({ ref, words, p }) => ({ ref, words, p })),
      });
    });
  diagnose
    .command('next <board.json> <readings.json>')
    .description('tests by information per minute')
    .action((boardFile: string, readingsFile: string) => {
      const { board, belief, given } = load(boardFile, readingsFile);
      const last = given.readings[given.readings.length - 1];
      const context = {
        access: deepest(given),
        absent: new Set(last?.absent),
        replaced: new Set(last?.replaced),
        taken: given.readings,
      };
      const tests = proposeTests(belief, context).slice(0, 5);
      print({
        tests: tests.map(({ measurement, bits, minutes }) => ({
          title: measurementTitle(board, measurement),
          measurement,
          bits,
          minutes,
        })),
      });
    });
}

function load(
  boardFile: string,
  readingsFile: string,
): { board: Board; predictor: Predictor; belief: Belief; given: Case } {
  const board = readBoard(boardFile);
  const given = readJson(readingsFile, casesSchema);
  given.readings.forEach((reading, i) => {
    const checked = checkReading(board, reading);
    if (!checked.ok) complain(checked.problems.map((p) => ({ ...p, at: `${readingsFile}, readings.${i}` })));
  });
  const predictor = new Predictor(board);
  return { board, predictor, belief: updateBelief(predictor, given.readings, given.history), given };
}

function deepest({ readings }: Case): Access {
  const order: readonly Access[] = ['closed', 'open', 'out'];
  return order[Math.max(0, ...readings.map((r) => order.indexOf(accessFor(r.measurement))))];
}
