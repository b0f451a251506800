/**
 * `npm test`: everything that must pass at every change: lint, unit tests, a production build, and the real interface in a browser; but for
 * the tests whose title or tag says `@long`, so that it stays a loop: statistical runs, and whole walks whose rules have short tests too.
 * `npm run test:long` runs those of the units, and the interface whole, for walks build on what stands before them in their file. Both are
 * run before a change is handed on.
 */
import { existsSync, readFileSync, readdirSync } from 'node:fs';
import path from 'node:path';
import { installPackages, must, node } from './run.mjs';

/** The interface is driven in Debian's Chromium; it is installed when it is missing. */
function installBrowser() {
  if (existsSync('/usr/bin/chromium')) return;
  const root = process.getuid?.() === 0 ? [] : ['sudo'];
  const apt = (...args) => must([...root, 'apt-get', ...args][0], [...root, 'apt-get', ...args].slice(1));
  apt('update');
  apt('install', '-y', 'chromium', 'fonts-liberation');
}

/** Only the files that have long ones: loading the others takes most of their time. */
const filesWithLong = () =>
  readdirSync('src', { recursive: true, encoding: 'utf8' })
    .filter((file) => file.endsWith('.test.ts'))
    .map((file) => path.join('src', file))
    .filter((file) => readFileSync(file, 'utf8').includes('@long'));

const long = process.argv.includes('--long');
installPackages();
if (!long) must('npm', ['run', '--silent', 'lint']);
node(['node_modules/jest/bin/jest.js', ...(long ? ['-t', '@long', ...filesWithLong()] : ['-t', '^(?!.*@long)'])]);
installBrowser();
node(['scripts/build.mjs']);
node(['node_modules/@playwright/test/cli.js', 'test', ...(long ? [] : ['--grep-invert', '@long'])]);
