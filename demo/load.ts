/** Loads the demo world into the bench's database. Run with: npm run demo:load */
import { openDatabase } from '../src/db/client';
import { loadDemo } from './world';

const db = await openDatabase(undefined, { begin: true });
await db.transaction((tx) => loadDemo(tx));
console.log('The demo world is loaded.');
