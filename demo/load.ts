/** Loads the demo world into the bench's database. Run with: npm run demo:load */
import { openDatabase } from '../src/db/client';
import { loadDemo } from './world';

await loadDemo(await openDatabase());
console.log('The demo world is loaded.');
