/** Restores a copy into a new file and says how to start with it: `npm run shop:restore -- COPY NEW-FILE`. */
import path from 'node:path';
import { problemText } from '../src/core/result';
import { restore } from '../src/db/backup';

const [copy, into] = process.argv.slice(2);
if (!copy || !into) {
  console.error('Expected a copy and a new file to restore it into.');
  process.exit(2);
}
const restored = await restore(copy, path.resolve(into));
if (restored.ok) {
  console.log(`Restored as of ${restored.value.at}: ${restored.value.rows} rows, the content of the copy.`);
  console.log(`Start with DATABASE_URL=file:${path.resolve(into)}, or move it to where the shop's database lies.`);
} else {
  console.error(problemText(restored.problems));
  process.exit(1);
}
