import type { Command } from 'commander';
import { z } from 'zod';
import { proveRails } from '../core/proof';
import { InputProblem, print, readBoard, readJson } from './input';

export function addProofCommands(root: Command): void {
  const proof = root.command('proof').description('proof after the repair');
  proof
    .command('rails <board.json> <volts.json>')
    .description('rails against their windows; volts.json maps rail names to volts')
    .action((boardFile: string, voltsFile: string) => {
      const board = readBoard(boardFile);
      const volts = readJson(voltsFile, z.record(z.string(), z.number()));
      const unknown = Object.keys(volts).find((id) => !board.rails.some((r) => r.id === id));
      if (unknown) throw new InputProblem(`${voltsFile}: expected rails of ${board.id}; got "${unknown}".`);
      const { rails, next, failures, allPass } = proveRails(board, new Map(Object.entries(volts)));
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
        })),
      });
    });
}
