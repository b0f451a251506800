import type { Command } from 'commander';
import type { ChainFound } from '../core/stored';
import { databaseUrl, openDatabase, OpenProblem } from '../db/client';
import { checkSeals } from '../db/seals';
import { InputProblem, print } from './input';

/** Exit code of a record that is not what was sealed. */
const BROKEN = 4;

export function addVerifyCommand(root: Command): void {
  root
    .command('verify')
    .description('holds the shop’s record against its seals; ends with 4 where an entry is not what was sealed')
    .option('--database <file>', 'the database, or a copy of it; the shop’s own where it is left out')
    .option('--seal <hex>', 'a seal that a report shows: it has to be in the record')
    .action(async (options: { database?: string; seal?: string }) => {
      const db = await openDatabase(options.database ? `file:${options.database}` : databaseUrl()).catch(
        (error: unknown) => {
          throw error instanceof OpenProblem ? new InputProblem(error.message) : error;
        },
      );
      const { jobs, stock } = await checkSeals(db, options.seal);
      print({ jobs: told('job entry', jobs), stock: told('stock entry', stock) });
      if (jobs.broken || stock.broken) process.exitCode = BROKEN;
    });
}

const told = (what: string, { broken, ...found }: ChainFound) => ({
  ...found,
  holds: !broken,
  ...(broken && { problem: broken.id > 0 ? `${what} ${broken.id} ${broken.message}` : broken.message }),
});
