import { createInterface } from 'node:readline';
import type { Command } from 'commander';
import { z } from 'zod';
import type { Board } from '../core/board';
import {
  HISTORY_FLAGS,
  DiagnoseSession,
  Predictor,
  accessFor,
  checkReading,
  measurementTitle,
  deeper,
  readingSchema,
  sessionLineSchema,
  suspects,
  updateBelief,
  rankActions,
  workLabel,
  type Access,
  type SessionAnswer,
  type Belief,
} from '../core/diagnose';
import { fail, type Result } from '../core/result';
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
          .map(({ ref, label, p }) => ({ ref, words: label, p })),
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
        replaced: last?.replaced ?? [],
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
  diagnose
    .command('session <board.json>')
    .description('a job line by line: JSON lines in, after each one line with what is best done next')
    .action((boardFile: string) => runSession(readBoard(boardFile), process.stdin));
}

/** Answers every line as it comes; one that cannot be taken is answered with what was expected, and changes nothing. */
export async function runSession(board: Board, input: NodeJS.ReadableStream): Promise<void> {
  const session = new DiagnoseSession(new Predictor(board));
  const tell = (answer: object): void => void process.stdout.write(`${JSON.stringify(answer)}\n`);
  for await (const text of createInterface({ input })) {
    if (text.trim() === '') continue;
    const answer = answerTo(session, text);
    if (!answer.ok) process.exitCode = 2;
    tell(answer.ok ? answer.value : { problems: answer.problems });
  }
}

function answerTo(session: DiagnoseSession, text: string): Result<SessionAnswer> {
  let line: unknown;
  try {
    line = JSON.parse(text);
  } catch (error) {
    return fail(`Expected one line of JSON; got text that is not (${(error as Error).message}).`);
  }
  const parsed = sessionLineSchema.safeParse(line);
  if (parsed.success) return session.take(parsed.data);
  return {
    ok: false,
    problems: parsed.error.issues.map((i) => ({ at: i.path.join('.'), message: `${i.message}.`.replace('..', '.') })),
  };
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

const deepest = ({ readings }: Case): Access =>
  readings.reduce((access: Access, r) => deeper(access, accessFor(r.measurement)), 'closed');
