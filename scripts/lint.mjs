/**
 * Everything that is checked without running the program, two at a time: types, ESLint with types (the core without DOM and
 * Node, React only where something is drawn, no function longer than two screens), import rules, unused code, format, and that
 * what is published is what its definitions say. Prints how long each took; stops with the first that fails once all have ended.
 */
import { spawn } from 'node:child_process';
import { availableParallelism } from 'node:os';

const bin = (name) => `node_modules/.bin/${name}`;
/** The longest first, so that none is left alone at the end. */
const CHECKS = [
  ['eslint', bin('eslint'), ['.', '--max-warnings', '0', '--cache', '--cache-location', 'node_modules/.cache/eslint/']],
  ['types', bin('tsc'), ['--noEmit', '-p', 'tsconfig.json']],
  ['imports', bin('depcruise'), ['--config', '.dependency-cruiser.cjs', 'src', 'demo', 'bench', 'e2e']],
  [
    'format',
    bin('prettier'),
    ['--check', '--log-level', 'warn', 'src', 'demo', 'bench', 'e2e', 'scripts', '*.{mjs,cjs,ts,json}'],
  ],
  ['unused code', bin('knip'), ['--no-config-hints']],
  ['published formats', bin('tsx'), ['scripts/write-formats.ts', '--check']],
];

function run([name, command, args]) {
  const began = Date.now();
  return new Promise((resolve) => {
    const child = spawn(command, args, {
      stdio: ['ignore', 'pipe', 'pipe'],
      env: { ...process.env, FORCE_COLOR: '0' },
    });
    let output = '';
    child.stdout.on('data', (data) => (output += data));
    child.stderr.on('data', (data) => (output += data));
    child.on('close', (code) => {
      console.log(`${code === 0 ? 'holds' : 'FAILS'}  ${name}, ${((Date.now() - began) / 1000).toFixed(0)} s`);
      if (code !== 0) console.log(output);
      resolve(code ?? 1);
    });
  });
}

const waiting = [...CHECKS];
async function lane() {
  let worst = 0;
  for (let next = waiting.shift(); next; next = waiting.shift()) worst = Math.max(worst, await run(next));
  return worst;
}
const codes = await Promise.all(Array.from({ length: Math.min(2, availableParallelism()) }, lane));
process.exit(Math.max(...codes));
