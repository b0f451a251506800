/**
 * Serves the production build: on this machine only, or with HOST on the shop's network. There it asks for people first, speaks HTTPS
 * alone (UNISOLDA_CERT and UNISOLDA_KEY, or a certificate made here), and answers to the names in UNISOLDA_HOSTS and to HOST itself.
 */
import { spawn, execFileSync } from 'node:child_process';
import { existsSync } from 'node:fs';
import { NEXT, become, env } from './run.mjs';
import { certificate, serveHttps } from './https-front.mjs';

const LOOPBACK = new Set(['127.0.0.1', 'localhost', '::1']);
const host = process.env.HOST ?? '127.0.0.1';
const port = Number(process.env.PORT ?? 3000);

if (!existsSync('.next/BUILD_ID')) {
  console.error('Expected a build; run "npm run setup" first.');
  process.exit(2);
}
if (LOOPBACK.has(host)) become(process.execPath, [NEXT, 'start', '-H', host, '-p', String(port)]);
else await serveShop();

/** The server stays on this machine; what is heard on the network is the HTTPS before it. */
async function serveShop() {
  const people = execFileSync(process.execPath, ['node_modules/tsx/dist/cli.mjs', 'scripts/people.ts'], {
    encoding: 'utf8',
    env,
  });
  if (!people.includes('\tlead\t')) {
    console.error(
      `Expected a lead with an account before this bench is heard at ${host}: everybody on the network could come in. "npm run shop:people -- add NAME SIGN-IN-NAME lead" lets the first one in.`,
    );
    process.exit(78);
  }
  const hosts = [host, ...(process.env.UNISOLDA_HOSTS ?? '').split(',')].map((h) => h.trim()).filter(Boolean);
  const named = hosts.filter((h) => h !== '0.0.0.0' && h !== '::');
  if (named.length === 0) {
    console.error(
      'Expected UNISOLDA_HOSTS with the names that this bench is called by, such as bench.local,192.168.1.20.',
    );
    process.exit(78);
  }
  const pair = await certificate(named);
  const inner = port + 1;
  const child = spawn(process.execPath, [NEXT, 'start', '-H', '127.0.0.1', '-p', String(inner)], {
    stdio: 'inherit',
    env: { ...env, UNISOLDA_HOSTS: named.join(','), UNISOLDA_URL: `https://${named[0]}:${port}` },
  });
  child.on('exit', (code) => process.exit(code ?? 1));
  for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => child.kill(signal));
  serveHttps({ host, port, inner, pair });
  console.log(`https://${named[0]}:${port}, certificate ${pair.fingerprint}`);
}
