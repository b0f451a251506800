/** Everything that must pass: lint, unit tests, a production build, and the real interface in a browser. */
import { existsSync } from 'node:fs';
import { installPackages, must, node } from './run.mjs';

/** The interface is driven in Debian's Chromium; it is installed when it is missing. */
function installBrowser() {
  if (existsSync('/usr/bin/chromium')) return;
  const root = process.getuid?.() === 0 ? [] : ['sudo'];
  const apt = (...args) => must([...root, 'apt-get', ...args][0], [...root, 'apt-get', ...args].slice(1));
  apt('update');
  apt('install', '-y', 'chromium', 'fonts-liberation');
}

installPackages();
must('npm', ['run', '--silent', 'lint']);
node(['node_modules/jest/bin/jest.js']);
installBrowser();
node(['scripts/build.mjs']);
node(['node_modules/@playwright/test/cli.js', 'test']);
