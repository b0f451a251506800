/** Fresh machine to ready: packages, production build, database with the demo world. */
import { installPackages, node } from './run.mjs';

installPackages();
node(['scripts/build.mjs']);
node(['node_modules/tsx/dist/cli.mjs', 'demo/load.ts']);
