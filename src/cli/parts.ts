import type { Command } from 'commander';
import { z } from 'zod';
import { allocate, costAlone } from '../core/allocation';
import {
  STRAP_TOTAL_OHM,
  decodeStrap,
  designStrap,
  judgeFit,
  partFamilySchema,
  partTypeSchema,
  reportSchema,
  type Need,
} from '../core/parts';
import { sourcingDefaults, strapValues } from '../core/sourcing';
import { E_SERIES, type ESeries } from '../core/units';
import { loadSolver } from '../workers/allocation/solver';
import { InputProblem, complain, print, readBoard, readJson } from './input';

const problemSchema = z.object({
  needs: z.array(z.object({ id: z.string(), job: z.number().int(), words: z.string() })),
  supplies: z.array(
    z.object({
      id: z.string(),
      words: z.string(),
      count: z.number().int().min(0).optional(),
      donor: z.string().optional(),
    }),
  ),
  donors: z.array(z.object({ id: z.string(), words: z.string(), cost: z.number().min(0) })),
  options: z.array(
    z.object({ need: z.string(), supply: z.string(), cost: z.number().min(0), chance: z.number().min(0).max(1) }),
  ),
});

interface FitOptions {
  readonly place: string;
  readonly reports?: string;
  readonly family?: string;
}

export function addPartCommands(root: Command): void {
  const parts = root.command('parts').description('part types, straps, donors');
  parts
    .command('fit <board.json> <part-types.json>')
    .description('every part type of a list at one place of a board')
    .requiredOption('--place <ref>', 'the place, such as U4')
    .option('--reports <reports.json>', 'compatibility reports')
    .option('--family <family.json>', 'the family’s school and rules')
    .action((boardFile: string, typesFile: string, options: FitOptions) => {
      const board = readBoard(boardFile);
      const types = readJson(typesFile, partTypeSchema.array());
      const reports = options.reports ? readJson(options.reports, reportSchema.array()) : [];
      const slot = board.slots.find((s) => s.ref === options.place.toUpperCase());
      if (!slot)
        throw new InputProblem(
          `Expected a place whose part type matters on ${board.id} (${board.slots.map((s) => s.ref).join(', ')}); got "${options.place}".`,
        );
      const kind = board.parts.find((p) => p.ref === slot.ref)!.kind;
      const need: Need = {
        board,
        slot,
        built: types.find((t) => t.id === slot.type),
        family: options.family ? readJson(options.family, partFamilySchema) : undefined,
      };
      const settings = { ...sourcingDefaults({ weights: {} }), nowH: 0 };
      const fits = types
        .filter((t) => t.kind === kind)
        .map((type) => ({ type: type.id, ...judgeFit(need, { type, marks: [] }, reports, settings) }));
      print({ place: slot.ref, built: slot.type, fits });
    });
  parts
    .command('straps')
    .description('a divider read into its bin, or the pair that gives a bin')
    .requiredOption('--bins <n>', 'equal bins of the supply', Number)
    .option('--read <top,bottom>', 'resistances that sit there, ohm')
    .option('--bin <n>', 'the bin that is wanted', Number)
    .option('--series <name>', `one of ${E_SERIES.join(', ')}`, 'E24')
    .option('--tolerance <percent>', 'of the resistors', Number, 1)
    .action((options: { bins: number; read?: string; bin?: number; series: string; tolerance: number }) => {
      const { bins, bin } = options;
      const tolerance = options.tolerance / 100;
      if (!(Number.isInteger(bins) && bins >= 2)) throw new InputProblem(`Expected 2 bins or more; got ${bins}.`);
      if (!(E_SERIES as readonly string[]).includes(options.series))
        throw new InputProblem(`Expected one of ${E_SERIES.join(', ')}; got "${options.series}".`);
      if (options.read !== undefined) {
        const [topOhm, bottomOhm] = options.read.split(',').map(Number);
        if (!(topOhm > 0 && bottomOhm > 0))
          throw new InputProblem(`Expected two resistances such as 47000,33000; got "${options.read}".`);
        return print(decodeStrap({ topOhm, bottomOhm, tolerance }, bins));
      }
      if (bin === undefined) throw new InputProblem('Expected --read or --bin; got neither.');
      const values = strapValues(options.series as ESeries);
      const design = designStrap({ bins, bin, tolerance, values, totalOhm: STRAP_TOTAL_OHM });
      if (!design.ok) return complain(design.problems);
      print(design.value);
    });
  parts
    .command('plan <problem.json>')
    .description('donors to open for a queue: needs, supplies, donors, options with their costs')
    .action(async (file: string) => {
      const problem = readJson(file, problemSchema);
      const plan = allocate(problem, await loadSolver());
      if (!plan.ok) return complain(plan.problems);
      print({ ...plan.value, jobByJob: costAlone(problem) });
    });
}
