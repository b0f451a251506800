/** Loads the demo world into the bench's database. Run with: npm run demo:load */
import { openDatabase } from '../src/db/client';
import { loadBench } from '../src/application/jobs/job-lists';
import { loadDemo } from './world';

const db = await openDatabase(undefined, { begin: true });
await db.transaction((tx) => loadDemo(tx));
// The bench's first page shows every open job's next step: computed once, and kept with the jobs.
await loadBench(db);
console.log('The demo world is loaded.');
