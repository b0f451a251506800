/**
 * Writes what is published from definitions: JSON Schemas and the page of the entry lines. Run with: npm run formats
 * With --check nothing is written: what is no longer what its definition says is named, and the run fails.
 */
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { entryLinePage } from '../src/cli/entry-line-page';
import { FORMATS, jsonSchemaOf } from '../src/cli/formats';

const schemas = (Object.keys(FORMATS) as (keyof typeof FORMATS)[]).map(
  (name) => [path.join('docs', 'formats', `${name}.schema.json`), jsonSchemaOf(name)] as const,
);
const published: readonly (readonly [string, string])[] = [
  ...schemas.map(([file, schema]) => [file, `${JSON.stringify(schema, null, 2)}\n`] as const),
  [path.join('docs', 'entry-line.md'), entryLinePage()],
];

if (process.argv.includes('--check')) {
  const stale = published.filter(([file, text]) => !existsSync(file) || readFileSync(file, 'utf8') !== text);
  for (const [file] of stale) console.error(`${file} is not what its definition says: run npm run formats.`);
  process.exitCode = stale.length > 0 ? 1 : 0;
} else {
  for (const [file, text] of published) writeFileSync(file, text);
}
