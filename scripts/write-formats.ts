/** Writes what is published from definitions: JSON Schemas and the page of the entry lines. Run with: npm run formats */
import { writeFileSync } from 'node:fs';
import path from 'node:path';
import { entryLinePage } from '../src/cli/entry-line-page';
import { FORMATS, jsonSchemaOf } from '../src/cli/formats';

for (const name of Object.keys(FORMATS) as (keyof typeof FORMATS)[]) {
  writeFileSync(
    path.resolve('docs/formats', `${name}.schema.json`),
    `${JSON.stringify(jsonSchemaOf(name), null, 2)}\n`,
  );
}

writeFileSync(path.resolve('docs', 'entry-line.md'), entryLinePage());
