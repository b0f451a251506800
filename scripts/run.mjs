/** What the setup, start and test scripts share: running a command and watching it. */
import { execFileSync, spawn } from 'node:child_process';
import { existsSync } from 'node:fs';

export const env = { ...process.env, NEXT_TELEMETRY_DISABLED: '1' };

/** Runs a command with its output shown; ends this process with its exit code when it fails. */
export function must(command, args, more = {}) {
  try {
    execFileSync(command, args, { stdio: 'inherit', env: { ...env, ...more } });
  } catch (error) {
    process.exit(error.status ?? 1);
  }
}

/** Installs the packages of the lock file when they are not there. */
export function installPackages() {
  if (!existsSync('node_modules/next')) must('npm', ['ci', '--no-audit', '--no-fund']);
}

export const node = (args, more) => must(process.execPath, args, more);
export const NEXT = 'node_modules/next/dist/bin/next';

/** Starts a command and hands signals and its exit code through. */
export function become(command, args) {
  const child = spawn(command, args, { stdio: 'inherit', env });
  for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => child.kill(signal));
  child.on('exit', (code) => process.exit(code ?? 1));
}
