import { gzipSync } from 'node:zlib';
import { BenchServer } from '../../e2e/server';
import { note, section } from '../print';

const PORT = 3253;
/** Pages with the most script that each may load, kB compressed. */
const PAGES = [
  ['/', 180],
  ['/jobs/32/arrive', 300],
  ['/jobs/32/probe', 300],
  ['/jobs/32/heat', 300],
  ['/jobs/32/image', 300],
  ['/jobs/32/prove', 300],
] as const;

/** Script of a first load, compressed, without what only old browsers fetch. */
export async function benchScripts(): Promise<void> {
  section('Script of a first load, kB compressed');
  const server = new BenchServer(PORT);
  await server.start();
  try {
    for (const [path, wanted] of PAGES) {
      const html = await (await fetch(`${server.url}${path}`)).text();
      const tags = [...html.matchAll(/<script[^>]+src="([^"]+)"[^>]*>/g)].filter(([tag]) => !/nomodule/i.test(tag));
      let bytes = 0;
      for (const source of new Set(tags.map(([, src]) => src))) {
        const script = await fetch(new URL(source, server.url));
        bytes += gzipSync(new Uint8Array(await script.arrayBuffer())).length;
      }
      note(`${path}: ${Math.round(bytes / 1000)} (wanted at most ${wanted})`);
    }
  } finally {
    await server.stop();
  }
}
