import { basename } from 'node:path';
import type { Command } from 'commander';
import { foreignBoard, placementTable, readBoardOf, type Outcome } from '../core/import';
import { draftBoard, fitPlacements, recordsOf, withPlacements, writeIpc356 } from '../core/netlist';
import { complain, print, readBoard, readBytes } from './input';

interface Reader<T> {
  readonly read: (file: { name: string; bytes: Uint8Array }, answers: Readonly<Record<string, string>>) => Outcome<T>;
}

function read<T>(reader: Reader<T>, path: string, answers: Readonly<Record<string, string>>): T {
  const outcome = reader.read({ name: basename(path), bytes: readBytes(path) }, answers);
  if (outcome.kind === 'refused')
    return complain(outcome.problems.map((p) => ({ ...p, at: `${path} ${p.at ?? ''}`.trim() })));
  return (
    outcome.value ?? complain(outcome.questions.map((q) => ({ at: path, message: `${q.why} Say it with --units.` })))
  );
}

export function addBoardCommands(root: Command): void {
  const board = root.command('board').description('board files from and to open formats');
  board
    .command('draft <file> [placement.csv]')
    .description('a board draft from IPC-D-356 or .kicad_pcb, what was inferred, and what is still missing')
    .option('--id <id>', 'the board’s id', 'draft')
    .option('--units <unit>', 'the unit of a netlist that names none: inch/10000 or mm/1000')
    .action((path: string, placement: string | undefined, options: { id: string; units?: string }) => {
      const answers: Record<string, string> = options.units === undefined ? {} : { units: options.units };
      const made = read(foreignBoard, path, answers);
      if (placement === undefined) return print(draftBoard(options.id, made.foreign, made.inference));
      const list = read(placementTable, placement, {});
      const fit = fitPlacements(made.foreign, list);
      if (!fit.ok) return complain(fit.problems.map((p) => ({ ...p, at: placement })));
      const { foreign, inference } = readBoardOf(withPlacements(made.foreign, list, fit.value));
      print(draftBoard(options.id, foreign, inference));
    });
  board
    .command('netlist <board.json>')
    .description('the pads and test points of a board as IPC-D-356')
    .action((file: string) => void process.stdout.write(writeIpc356(recordsOf(readBoard(file)))));
}
