/**
 * Compiles the heat kernel from its source and keeps the bytes as a module, so that every bundler can load them.
 * With --check nothing is written: it fails when the kept bytes are not those of the source.
 */
import { readFileSync, writeFileSync } from 'node:fs';
import asc from 'assemblyscript/asc';

const SOURCE = 'src/core/heat/assembly/kernel.ts';
const KEPT = 'src/core/heat/kernel-bytes.ts';
const FLAGS = ['--runtime', 'stub', '--enable', 'simd', '--importMemory', '-O3', '--noAssert', '--use', 'abort='];

const files = {};
const { error, stderr } = await asc.main([SOURCE, ...FLAGS, '--outFile', 'kernel.wasm'], {
  writeFile: (name, contents) => void (files[name] = contents),
});
if (error) {
  console.error(`${error.message}\n${stderr}`);
  process.exit(1);
}
const text = `/** Made by "npm run build:kernel" from assembly/kernel.ts; a test holds one against the other. */
export const KERNEL_BASE64 =
  '${Buffer.from(files['kernel.wasm']).toString('base64')}';
`;
if (!process.argv.includes('--check')) writeFileSync(KEPT, text);
else if (readFileSync(KEPT, 'utf8') !== text) {
  console.error(`Expected ${KEPT} to hold what ${SOURCE} compiles to; run "npm run build:kernel".`);
  process.exit(1);
}
