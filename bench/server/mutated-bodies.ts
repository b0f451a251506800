import { readFileSync } from 'node:fs';
import { seededRandom, type Random } from '../../src/core/math';
import { BenchServer } from '../../e2e/server';
import { note, section } from '../print';

/** What a body is made of: values of every kind, the odd ones too. */
const ATOMS: readonly ((random: Random) => unknown)[] = [
  () => null,
  () => '',
  () => 31,
  () => -1,
  () => 1e308,
  () => '__proto__',
  () => 'constructor',
  () => 'tp7 1.8 ohm',
  () => 'heronlog-4-c',
  () => '\u0000\ud800 ‮',
  () => 'x'.repeat(5000),
  () => '{"format":"unisolda-board/2"}',
  () => '0'.repeat(64),
  () => true,
  () => [],
  () => ({}),
  () => ({ __proto__: null, kind: 'reading', measurement: { kind: 'groundResistance', net: 'AON33' }, value: null }),
  () => ({ kind: 'note', text: 7 }),
  (random) => random() * 1e6,
];

const anyOf = <T>(list: readonly T[], random: Random): T => list[Math.floor(random() * list.length)];

function value(random: Random, depth = 0): unknown {
  const pick = random();
  if (depth > 3 || pick < 0.7) return anyOf(ATOMS, random)(random);
  const length = Math.floor(random() * 4);
  if (pick < 0.85) return Array.from({ length }, () => value(random, depth + 1));
  return Object.fromEntries(
    Array.from({ length }, () => [anyOf(['kind', 'id', 'number', 'text', 'x'], random), value(random, depth + 1)]),
  );
}

interface Target {
  readonly name: string;
  readonly at: string;
  readonly headers: Readonly<Record<string, string>>;
}

interface Manifest {
  readonly node: Readonly<
    Record<string, { readonly exportedName?: string; readonly workers: Readonly<Record<string, unknown>> }>
  >;
}

/** Every server action on a page that has it, and the routes that take a body. */
function targetsOf(url: string): Target[] {
  const { node } = JSON.parse(readFileSync('.next/server/server-reference-manifest.json', 'utf8')) as Manifest;
  const actions = Object.entries(node).map(([id, { exportedName, workers }]): Target => {
    const [page] = Object.keys(workers);
    const at = page
      .replace(/^app/, '')
      .replace(/\/(page|route)$/, '')
      .replace('[number]', '31')
      .replace(/\/drills\/\[id\]/, '/drills/1')
      .replace('/stations/[id]', '/stations/bench-1')
      .replace('[id]', 'heronlog-4-c');
    return {
      name: exportedName ?? id,
      at: at === '' ? '/' : at,
      headers: {
        'next-action': id,
        'content-type': 'text/plain;charset=UTF-8',
        accept: 'text/x-component',
        origin: url,
      },
    };
  });
  const json = { 'content-type': 'application/json', origin: url };
  return [
    ...actions,
    { name: 'entries', at: '/jobs/31/entries', headers: json },
    { name: 'stock events', at: '/stock/events', headers: json },
  ];
}

/** A body: mostly well-formed JSON of the wrong make-up, now and then torn, which the framework answers before any action sees it. */
function bodyOf(random: Random): { readonly body: string; readonly torn: boolean } {
  const text = JSON.stringify(Array.from({ length: Math.floor(random() * 6) }, () => value(random)));
  const torn = random() < 0.1;
  return { body: torn ? text.slice(0, Math.floor(random() * text.length)) : text, torn };
}

/** Sends bodies of the wrong make-up to every action and route: sentences come back, and the server stays as it is. */
export async function benchMutatedBodies(bodies = 10_000): Promise<void> {
  section(`${bodies} bodies of the wrong make-up over HTTP, to every action and route`);
  const server = new BenchServer(3236);
  await server.start();
  const targets = targetsOf(server.url);
  const random = seededRandom(7);
  const statuses = new Map<string, number>();
  const failing = new Map<string, number>();
  for (let k = 0; k < bodies; k++) {
    const target = targets[k % targets.length];
    const { body, torn } = bodyOf(random);
    const answer = await fetch(server.url + target.at, { method: 'POST', headers: target.headers, body });
    await answer.text();
    statuses.set(String(answer.status), (statuses.get(String(answer.status)) ?? 0) + 1);
    const name = torn ? 'a torn body' : target.name;
    if (answer.status >= 500) failing.set(name, (failing.get(name) ?? 0) + 1);
  }
  const alive = (await fetch(`${server.url}/`)).status === 200;
  await server.stop();
  for (const [status, count] of statuses) note(`${status}: ${count}`);
  const names = [...failing].sort((a, b) => b[1] - a[1]).map(([name, count]) => `${name} ${count}`);
  note(`answered with an error and no sentence (wanted none): ${names.join(', ') || 'none'}`);
  note(`alive afterwards: ${alive}`);
}
