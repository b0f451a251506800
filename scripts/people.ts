/**
 * Lets the first people in, before anybody can sign in: `npm run shop:people -- add NAME SIGN-IN-NAME lead`, the password on standard
 * input; `npm run shop:people` lists who may. Ends with 1 where nobody was let in.
 */
import { text } from 'node:stream/consumers';
import { addPerson } from '../src/application/access/auth';
import { listPeople } from '../src/application/access/people';
import { ROLES } from '../src/application/access/person';
import { database } from '../src/db/client';

const [act, name, username, role] = process.argv.slice(2);
const known = ROLES.find((r) => r === role);
if (act === undefined) {
  for (const p of await listPeople()) console.log(`${p.username}\t${p.role}\t${p.name}`);
} else if (act !== 'add' || !name || !username || !known) {
  console.error(`Expected add NAME SIGN-IN-NAME and one of ${ROLES.join(', ')}; the password on standard input.`);
  process.exitCode = 2;
} else {
  const password = (await text(process.stdin)).replace(/\r?\n$/, '');
  const problem = await addPerson(await database(), { name, username, password, role: known });
  if (problem) console.error(problem);
  else console.log(`${name} may sign in as ${username}.`);
  process.exitCode = problem ? 1 : 0;
}
process.exit();
