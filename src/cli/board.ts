import { basename } from 'node:path';
import type { Command } from 'commander';
import { foreignBoard, placementTable, readBoardOf, type Outcome } from '../core/import';
import { draftBoard, fitPlacements, recordsOf, withPlacements, writeIpc356 } from '../core/netlist';
import type { Board } from '../core/board';
import { homographyOf, placeDoubtMm, seenBodies, straightened } from '../core/photo';
import type { Result } from '../core/result';
import { LAND_PATTERNS, answersSchema, applyBoardEdit, carryOf, firstBoard, parseSketchLine } from '../core/sketch';
import { answersOf } from './import';
import { InputProblem, complain, print, readBoard, readBytes, readJson, readPixels } from './input';

interface Reader<T> {
  readonly read: (file: { name: string; bytes: Uint8Array }, answers: Readonly<Record<string, string>>) => Outcome<T>;
}

function read<T>(reader: Reader<T>, path: string, answers: Readonly<Record<string, string>>): T {
  const outcome = reader.read({ name: basename(path), bytes: readBytes(path) }, answers);
  if (outcome.kind === 'refused')
    return complain(outcome.problems.map((p) => ({ ...p, at: `${path} ${p.at ?? ''}`.trim() })));
  return (
    outcome.value ??
    complain(
      outcome.questions.map((q) => ({
        at: path,
        message: `${q.why} Say it with --answer ${q.id}=…${q.choices.length > 0 ? `: ${q.choices.join(', ')}` : ''}.`,
      })),
    )
  );
}

export function addBoardCommands(root: Command): void {
  const board = root.command('board').description('board files from and to open formats');
  board
    .command('draft <file> [placement.csv]')
    .description('a board draft from IPC-D-356, IPC-2581 or .kicad_pcb, what was inferred, and what is still missing')
    .option('--id <id>', 'the board’s id', 'draft')
    .option('--units <unit>', 'the unit of a netlist that names none: inch/10000 or mm/1000')
    .option('--answer <question=value...>', 'answers to what the file leaves open')
    .action(
      (path: string, placement: string | undefined, options: { id: string; units?: string; answer?: string[] }) => {
        const units: Record<string, string> = options.units === undefined ? {} : { units: options.units };
        const answers = answersOf(options.answer ?? []);
        const made = read(foreignBoard, path, { ...units, ...answers });
        if (placement === undefined) return print(draftBoard(options.id, made.foreign, made.inference));
        const list = read(placementTable, placement, answers);
        const fit = fitPlacements(made.foreign, list);
        if (!fit.ok) return complain(fit.problems.map((p) => ({ ...p, at: placement })));
        const { foreign, inference } = readBoardOf(withPlacements(made.foreign, list, fit.value));
        print(draftBoard(options.id, foreign, inference));
      },
    );
  board
    .command('netlist <board.json>')
    .description('the pads and test points of a board as IPC-D-356')
    .action((file: string) => void process.stdout.write(writeIpc356(recordsOf(readBoard(file)))));
  board
    .command('sketch <answers.json>')
    .description('a first board from what was answered by looking (format: unisolda schema sketch-answers)')
    .option('--id <id>', 'the board’s id', 'sketch')
    .action((file: string, { id }: { id: string }) =>
      print(valueOf(firstBoard(id, readJson(file, answersSchema)), file)),
    );
  board
    .command('edit <board.json> <lines...>')
    .description(
      'a board with what was found: lines as the board’s entry line takes them, such as "u4 is the controller"',
    )
    .action((file: string, lines: readonly string[]) => print(lines.reduce(edited, readBoard(file))));
  board
    .command('carry <board.json>')
    .description('how far the file carries, stage by stage, and the readings of a good board that would help most')
    .action((file: string) => print(carryOf(readBoard(file))));
  board
    .command('seen <photograph>')
    .description('what looks like parts in a photograph, with place, turn, size and package')
    .requiredOption('--size <mm>', 'width and height of the board, as 58,36')
    .requiredOption(
      '--corners <px>',
      'the board’s corners in the photograph, top left first and clockwise, as 90,110,1800,140,…',
    )
    .action((file: string, { size, corners }: { size: string; corners: string }) => print(seenIn(file, size, corners)));
}

function valueOf<T>(made: Result<T>, at: string): T {
  return made.ok ? made.value : complain(made.problems.map((p) => ({ ...p, at })));
}

function edited(board: Board, line: string): Board {
  const read = parseSketchLine(board, line);
  return valueOf(read.ok ? applyBoardEdit(board, read.value.edit) : read, line);
}

const figures = (text: string, count: number, what: string): number[] => {
  const list = text.split(',').map(Number);
  if (list.length !== count || list.some((n) => !Number.isFinite(n)))
    throw new InputProblem(`Expected ${count} figures with commas between them for ${what}; got "${text}".`);
  return list;
};

/** Corners that a person clicks are good to so many px. Engineering estimate. */
const CLICK_PX = 2;
/** Parts are looked for at this scale, px per mm. Engineering estimate. */
const LOOK_PX_PER_MM = 16;

function seenIn(file: string, size: string, corners: string): object {
  const [width, height] = figures(size, 2, '--size');
  const px = figures(corners, 8, '--corners');
  const mm = [0, 0, width, 0, width, height, 0, height];
  const points = [0, 2, 4, 6].map((k) => ({ mm: { x: mm[k], y: mm[k + 1] }, px: { x: px[k], y: px[k + 1] } }));
  const map = valueOf(homographyOf(points), '--corners');
  const flat = straightened(readPixels(file), map, width, height, LOOK_PX_PER_MM);
  const choices = LAND_PATTERNS.filter((p) => p.seen);
  const doubtMm = placeDoubtMm(points, { x: width / 2, y: height / 2 }, CLICK_PX);
  return { doubtMm, bodies: seenBodies(flat, LOOK_PX_PER_MM, choices) };
}
