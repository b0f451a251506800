/**
 * Copies the shop's database, also while it is in use: `npm run shop:backup -- FOLDER`, and with `--every MINUTES` again and again.
 * Ends with 1 where a copy was not made.
 */
import { setTimeout as wait } from 'node:timers/promises';
import { problemText } from '../src/core/result';
import { backUp } from '../src/db/backup';
import { databaseUrl } from '../src/db/client';

const [folder, flag, minutes] = process.argv.slice(2);
if (!folder || (flag !== undefined && !(flag === '--every' && Number(minutes) > 0))) {
  console.error('Expected a folder for the copies, and --every with minutes for one after the other.');
  process.exit(2);
}
do {
  const made = await backUp(databaseUrl(), folder, new Date());
  if (made.ok) console.log(`${made.value.file}: ${made.value.rows} rows, ${made.value.sha256}`);
  else {
    console.error(problemText(made.problems));
    process.exitCode = 1;
  }
  if (flag) await wait(Number(minutes) * 60_000);
} while (flag);
