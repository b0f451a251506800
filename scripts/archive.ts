/**
 * Everything out of the shop into one archive, or in from one: `npm run shop:archive -- out FILE`, `npm run shop:archive -- in FILE`.
 * Ends with 1 where nothing was written or brought in.
 */
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { problemText } from '../src/core/result';
import { bringIn, writeArchive } from '../src/db/archive';
import { database } from '../src/db/client';

const [way, file] = process.argv.slice(2);
if (!file || (way !== 'out' && way !== 'in')) {
  console.error('Expected out or in, and a file.');
  process.exit(2);
}
if (way === 'out') {
  if (existsSync(file)) {
    console.error(`Expected a new file; ${file} is there already.`);
    process.exit(1);
  }
  const { bytes, manifest } = await writeArchive(await database(), new Date());
  writeFileSync(file, bytes, { mode: 0o600 });
  console.log(`${file}: ${Object.keys(manifest.files).length} files, ${manifest.sha256}`);
} else {
  const brought = await bringIn(await database(), readFileSync(file));
  if (brought.ok) {
    const { jobs, entries, renumbered, sha256 } = brought.value;
    console.log(`${jobs} jobs, ${entries} entries of ${sha256}`);
    for (const [was, is] of renumbered) console.log(`job ${was} is ${is} here: its number was taken`);
  } else {
    console.error(problemText(brought.problems));
    process.exitCode = 1;
  }
}
process.exit();
