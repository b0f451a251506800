/** Benchmarks of the production server: npm run bench:server [kills]. They need a build. */
import { benchKills } from './kills';
import { benchLoad } from './load';
import { benchMutatedBodies } from './mutated-bodies';
import { benchScripts } from './weigh';

await benchScripts();
await benchLoad();
await benchKills(Number(process.argv[2] ?? 200));
await benchMutatedBodies();
