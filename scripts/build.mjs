/** The production build: the pages, then the code of the server's worker threads. */
import { NEXT, node } from './run.mjs';

node([NEXT, 'build']);
node(['scripts/build-server-work.mjs']);
