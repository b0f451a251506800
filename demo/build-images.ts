/** Writes the demo dumps that a person can load on the Image screen. Run with: npx tsx demo/build-images.ts */
import { mkdirSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { DEMO_DUMPS } from './dumps';
import { demoFamily } from './files';
import { demoImage } from './images';

const folder = path.resolve('demo/images');
mkdirSync(folder, { recursive: true });
for (const { file, family, wish } of DEMO_DUMPS)
  writeFileSync(path.join(folder, file), demoImage(demoFamily(family), wish));
