import type { Command } from 'commander';
import { z } from 'zod';
import type { Board } from '../core/board';
import {
  HISTORY_FLAGS,
  Predictor,
  accessFor,
  checkReading,
  measurementTitle,
  deeper,
  readingSchema,
  repairLabel,
  suspects,
  updateBelief,
  rankActions,
  type Access,
  type BoardTarget,
  type Belief,
  type RepairTarget,
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
    .description('the next step: tests and work on one scale, minutes to a proven cure')
    .action((boardFile: string, readingsFile: string) => {
      const { board, belief, given } = load(boardFile, readingsFile);
      const last = given.readings[given.readings.length - 1];
      const context = {
        access: deepest(given),
        absent: new Set(last?.absent),
        replaced: new Set(last?.replaced),
        taken: given.readings,
      };
      const { tests, work, repairFirst } = rankActions(belief, context);
      print({
        repairFirst,
        work: work && {
          words: workLabel(work.need.target),
          expectedMinutes: work.expectedMinutes,
        },
        tests: tests.slice(0, 5).map(({ measurement, bits, minutes, expectedMinutes }) => ({
          title: measurementTitle(board, measurement),
          measurement,
          bits,
          minutes,
          expectedMinutes,
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

/** Work on the board by its name; what is outside is exchanged. */
function workLabel(target: RepairTarget): string {
  if (target.kind === 'nothing') return 'Nothing on this board';
  return target.kind === 'outside' ? `Exchange the ${target.what}` : repairLabel(target satisfies BoardTarget);
}

const deepest = ({ readings }: Case): Access =>
  readings.reduce((access: Access, r) => deeper(access, accessFor(r.measurement)), 'closed');
