/** Serves the production build on this machine only; PORT and HOST change that. */
import { existsSync } from 'node:fs';
import { NEXT, become } from './run.mjs';

if (!existsSync('.next/BUILD_ID')) {
  console.error('Expected a build; run "npm run setup" first.');
  process.exit(2);
}
become(process.execPath, [NEXT, 'start', '-H', process.env.HOST ?? '127.0.0.1', '-p', process.env.PORT ?? '3000']);
