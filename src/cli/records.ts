import type { Command } from 'commander';
import { jobsNear, LEDGER_GROUPS, pointGroups, tally, toldAndWas, type LedgerGroup } from '../core/ledger';
import { databaseUrl, openDatabase, OpenProblem, type Database } from '../db/client';
import { refreshSummaries } from '../db/job-summaries';
import { ledgerLines, ledgerPoints, pointReadings, refreshLedger } from '../db/ledger';
import { InputProblem, print } from './input';

async function opened(file: string | undefined): Promise<Database> {
  const db = await openDatabase(file ? `file:${file}` : databaseUrl()).catch((error: unknown) => {
    throw error instanceof OpenProblem ? new InputProblem(error.message) : error;
  });
  await refreshSummaries(db);
  await refreshLedger(db);
  return db;
}

const groupOf = (text: string): LedgerGroup => {
  const found = LEDGER_GROUPS.find((g) => g === text);
  if (!found) throw new InputProblem(`Expected --by ${LEDGER_GROUPS.join(', ')}; got ${text}.`);
  return found;
};

interface Options {
  readonly database?: string;
  readonly board?: string;
  readonly from?: string;
  readonly before?: string;
}

export function addRecordsCommands(root: Command): void {
  const records = root.command('records').description('what the closed jobs of a shop say');
  records
    .command('cures')
    .description('cure rates, comebacks, minutes, money and promises, with the range that so few jobs leave')
    .option('--by <group>', `put together by ${LEDGER_GROUPS.join(', ')}`, 'board')
    .option('--board <id>', 'jobs on one board')
    .option('--from <day>', 'closed on this day or later, such as 2026-01-01')
    .option('--before <day>', 'closed before this day')
    .option('--database <file>', 'the database, or a copy of it; the shop’s own where it is left out')
    .action(async ({ by, database, board, from, before }: Options & { by: string }) => {
      const group = groupOf(by);
      const lines = await ledgerLines(await opened(database), { boardId: board, from, before });
      print({ by: group, jobs: lines.length, rows: tally(lines, group), told: toldAndWas(lines) });
    });
  records
    .command('point <board> [point]')
    .description('every reading at a point by what was at fault; without a point, the points that were read')
    .option('--near <value>', 'what jobs were that read near this, in the units of the point')
    .option('--database <file>', 'the database, or a copy of it; the shop’s own where it is left out')
    .action(async (board: string, point: string | undefined, options: Options & { near?: string }) => {
      const db = await opened(options.database);
      const points = await ledgerPoints(db, board);
      if (point === undefined) return print({ board, points });
      if (!points.some((p) => p.point === point))
        throw new InputProblem(`Expected a point that was read on ${board}; got ${point}.`);
      const near = options.near === undefined ? undefined : Number(options.near.replace(',', '.'));
      if (near !== undefined && Number.isNaN(near))
        throw new InputProblem(`Expected --near with a figure; got ${options.near}.`);
      const readings = await pointReadings(db, board, point);
      print({
        ...{ board, point, groups: pointGroups(readings) },
        ...(near !== undefined && { near: { value: near, ...jobsNear(readings, near) } }),
      });
    });
}
