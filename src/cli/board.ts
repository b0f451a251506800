import type { Command } from 'commander';
import { draftBoard, parseIpc356, parsePlacementCsv, recordsOf, writeIpc356 } from '../core/netlist';
import { complain, print, readBoard, readBytes } from './input';

const text = (file: string): string => new TextDecoder().decode(readBytes(file));

export function addBoardCommands(root: Command): void {
  const board = root.command('board').description('board files from and to open formats');
  board
    .command('draft <netlist.ipc> [placement.csv]')
    .description('a board draft from IPC-D-356, and what is still missing')
    .option('--id <id>', 'the board’s id', 'draft')
    .action((netlist: string, placement: string | undefined, options: { id: string }) => {
      const records = parseIpc356(text(netlist));
      if (!records.ok) return complain(records.problems.map((p) => ({ ...p, at: `${netlist} ${p.at ?? ''}`.trim() })));
      const places = placement === undefined ? undefined : parsePlacementCsv(text(placement));
      if (places && !places.ok)
        return complain(places.problems.map((p) => ({ ...p, at: `${placement} ${p.at ?? ''}`.trim() })));
      print(draftBoard(options.id, records.value, places?.value));
    });
  board
    .command('netlist <board.json>')
    .description('the pads and test points of a board as IPC-D-356')
    .action((file: string) => void process.stdout.write(writeIpc356(recordsOf(readBoard(file)))));
}
