/** Begins an empty shop: a database without boards, jobs or stock. One that is there stays as it is. */
import { databaseUrl, openDatabase } from '../src/db/client';

await openDatabase(undefined, { begin: true });
console.log(`The shop's database is at ${databaseUrl()}.`);
