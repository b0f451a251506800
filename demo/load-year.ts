/** Puts a year of closed jobs behind the demo world, for the records and what is learned from them. Run with: npm run demo:year */
import { openDatabase } from '../src/db/client';
import { loadYear } from './year';

const JOBS = 180;
const db = await openDatabase();
await db.transaction((tx) => loadYear(tx, JOBS));
console.log(`${JOBS} closed jobs of the year before are there.`);
