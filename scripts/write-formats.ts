/** Writes the published JSON Schemas to docs/formats. Run with: npm run formats */
import { writeFileSync } from 'node:fs';
import path from 'node:path';
import { FORMATS, jsonSchemaOf } from '../src/cli/formats';

for (const name of Object.keys(FORMATS) as (keyof typeof FORMATS)[]) {
  writeFileSync(
    path.resolve('docs/formats', `${name}.schema.json`),
    `${JSON.stringify(jsonSchemaOf(name), null, 2)}\n`,
  );
}
