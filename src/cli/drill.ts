import { z } from 'zod';
import type { Command } from 'commander';
import { Predictor } from '../core/diagnose';
import {
  drillSchema,
  drillStepSchema,
  DrillPlay,
  parOf,
  readDrillLine,
  replay,
  scoreOf,
  unknownFaults,
  type Drill,
} from '../core/drill';
import { problemText } from '../core/result';
import { InputProblem, print, readBoard, readJson } from './input';

interface MakeOptions {
  readonly seed?: string;
  readonly faults: string;
  readonly misleading?: boolean;
  readonly grade: string;
  readonly name: string;
}

/** Seeds that are tried for one that the program itself solves. */
const MOST_TRIES = 12;

export function addDrillCommands(root: Command): void {
  const drill = root.command('drill').description('finding hidden faults, to learn on');
  drill
    .command('make <board>')
    .description('draws a drill that the program itself solves, as a file of the published form')
    .option('--seed <number>', 'where the search for one begins', '1')
    .option('--faults <1|2|3|unlisted>', 'how many listed faults at once, or one that no list holds', '1')
    .option('--misleading', 'the owner tells something that has nothing to do with it')
    .option('--grade <1-10>', 'how hard it is called', '1')
    .option('--name <words>', 'what it is called', 'A drill')
    .action((file: string, options: MakeOptions) => make(file, options));
  drill
    .command('play <board> <drill> [lines...]')
    .description('takes lines such as "usb a" and "replace u4" and says what each gave; without lines, how it begins')
    .action((file: string, drillFile: string, lines: string[]) => play(file, drillFile, lines));
  drill
    .command('score <board> <drill> <steps>')
    .description('holds steps against the best one of each moment: minutes, regret, mistakes, the lesson')
    .action((file: string, drillFile: string, stepsFile: string) => score(file, drillFile, stepsFile));
}

function make(file: string, { seed, faults, misleading = false, grade, name }: MakeOptions): void {
  const board = readBoard(file);
  const predictor = Predictor.of(board);
  const asked = drillSchema.safeParse({
    ...{ format: 1, name, boardId: board.id, misleading, grade: Number(grade) },
    seed: Number(seed),
    faults: faults === 'unlisted' ? faults : Number(faults),
  });
  if (!asked.success) {
    const [{ path, message }] = asked.error.issues;
    throw new InputProblem(`Expected a drill that can be drawn; ${path.join('.')}: ${message}.`);
  }
  for (let k = 0; k < MOST_TRIES; k++) {
    const drawn = { ...asked.data, seed: asked.data.seed + k };
    if (parOf(predictor, drawn).isSolved) return print(drawn);
  }
  throw new InputProblem(`Expected a drill that can be solved; none of ${MOST_TRIES} seeds from ${seed} was.`);
}

/** A drill's file, its faults those of this board. */
function readDrill(file: string, predictor: Predictor): Drill {
  const drill = readJson(file, drillSchema);
  const [unknown] = unknownFaults(predictor, drill);
  if (unknown) throw new InputProblem(`Expected faults of ${predictor.board.id} in ${file}; got "${unknown}".`);
  return drill;
}

function play(file: string, drillFile: string, lines: readonly string[]): void {
  const board = readBoard(file);
  const predictor = Predictor.of(board);
  const played = new DrillPlay(predictor, readDrill(drillFile, predictor));
  const steps = lines.map((line) => {
    const proposal = played.proposal();
    const also = proposal.kind === 'test' || proposal.kind === 'again' ? [proposal.measurement] : [];
    const step = readDrillLine(board, line, also);
    if (!step.ok) throw new InputProblem(problemText(step.problems));
    const taken = played.take(step.value);
    if (!taken.ok) throw new InputProblem(problemText(taken.problems));
    const { words, answer, minutes } = taken.value;
    return { line, step: step.value, words, answer, minutes };
  });
  print({ story: played.drawn.story, steps, minutes: played.minutes, end: played.end ?? null });
}

function score(file: string, drillFile: string, stepsFile: string): void {
  const predictor = Predictor.of(readBoard(file));
  const drill = readDrill(drillFile, predictor);
  const steps = readJson(stepsFile, z.array(drillStepSchema));
  const played = replay(predictor, drill, steps);
  if (played.reviews.length < steps.length)
    throw new InputProblem(
      `Expected steps that can be taken; step ${played.reviews.length + 1} of ${stepsFile} cannot, or comes after the end.`,
    );
  print({
    end: played.end ?? null,
    ...(played.end && { truth: played.truth() }),
    score: scoreOf(played, parOf(predictor, drill).minutes),
    steps: played.reviews,
  });
}
