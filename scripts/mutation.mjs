/**
 * Would the tests notice? Changes the rules and arithmetic of the core one spot at a time and runs the short tests of that
 * capability. Prints the share that was noticed. Run with: npm run mutation [capability …]
 */
import { spawnSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { CAPABILITIES } from './mutation-capabilities.mjs';

const REPORT = 'node_modules/.cache/mutation/report.json';
const NOTICED = new Set(['Killed', 'Timeout']);
const asked = process.argv.slice(2);
const unknown = asked.find((name) => !(name in CAPABILITIES));
if (unknown !== undefined) {
  console.error(`Expected ${Object.keys(CAPABILITIES).join(', ')}; got "${unknown}".`);
  process.exit(1);
}

for (const name of asked.length > 0 ? asked : Object.keys(CAPABILITIES)) {
  const began = Date.now();
  const run = spawnSync('node_modules/.bin/stryker', ['run'], {
    env: { ...process.env, MUTATION_CAPABILITY: name },
    stdio: ['ignore', 'ignore', 'inherit'],
  });
  if (run.status !== 0) process.exit(run.status ?? 1);
  const { files } = JSON.parse(readFileSync(REPORT, 'utf8'));
  const mutants = Object.entries(files).flatMap(([file, { mutants: list }]) => list.map((m) => ({ ...m, file })));
  const counted = mutants.filter((m) => NOTICED.has(m.status) || m.status === 'Survived' || m.status === 'NoCoverage');
  const noticed = counted.filter((m) => NOTICED.has(m.status)).length;
  const seconds = ((Date.now() - began) / 1000).toFixed(0);
  console.log(`${name}: ${((100 * noticed) / counted.length).toFixed(1)} % of ${counted.length} noticed, ${seconds} s`);
  for (const m of counted.filter((c) => !NOTICED.has(c.status)))
    console.log(
      `  ${m.status}  ${m.file}:${m.location.start.line}  ${m.mutatorName}: ${(m.replacement ?? '').slice(0, 60)}`,
    );
}
