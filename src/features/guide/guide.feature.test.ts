/** The guide says what holds: its examples are typed into the demo world, its links and pictures are there. */
import { existsSync, readdirSync } from 'node:fs';
import path from 'node:path';
import { enterLine } from '@/application/jobs/execute';
import { enterStockLine } from '@/application/stock/stock';
import { STAGES } from '@/core/job';
import type { Database } from '@/db/client';
import { demoBench } from '../tests/demo-bench';
import { guideFor, guidePages, guidePicture, inProgram } from './pages';

jest.mock('next/cache', () => ({ revalidatePath: jest.fn() }));

let db: Database;
let remove: () => void;
beforeAll(async () => ({ db, remove } = await demoBench()));
afterAll(() => remove());

const PAGES = guidePages();

/** The blocks of a page: what they are called and what stands in them. */
const blocksOf = (text: string): { readonly name: string; readonly lines: readonly string[] }[] =>
  [...text.matchAll(/```(.+)\n([\s\S]*?)```/g)].map(([, name, body]) => ({ name, lines: body.trim().split('\n') }));

test('every stage, and every place of the strip, has a page; each has an example', () => {
  const ids = STAGES.map(({ id }) => guideFor(`/jobs/31/${id}`));
  expect(ids).toEqual(['arrive', 'outside', 'probe', 'decide', 'heat', 'balls', 'image', 'prove', 'prove']);
  const places = [
    '/',
    '/library/sketch',
    '/stock?view=plan',
    '/records',
    '/drills/3',
    '/shop',
    '/sign-in',
    '/jobs/new',
  ];
  expect(places.map(guideFor)).toEqual(
    'bench library stock records-and-drills records-and-drills shop shop arrive'.split(' '),
  );
  expect(guideFor('/nowhere/at/all')).toBe('bench');
  for (const { title, text } of PAGES) expect([title, blocksOf(text).length > 0]).toEqual([title, true]);
});

test('links lead to pages and pictures that there are; every file of the guide is a page', () => {
  const ids = new Set(PAGES.map((p) => `/guide/${p.id}`));
  for (const { text } of PAGES)
    for (const [, url] of text.matchAll(/\]\(([^)]+)\)/g)) {
      const to = inProgram(url);
      const there = to.startsWith('/guide/pictures/')
        ? guidePicture(path.basename(to)) !== undefined
        : ids.has(to) && existsSync(path.join('docs/guide', url));
      expect([url, there]).toEqual([url, true]);
    }
  expect(readdirSync('docs/guide').filter((f) => f !== 'README.md')).toHaveLength(PAGES.length);
});

test.each(['../../package.json', 'nothing.png', 'probe.png/..', ''])('no file but a picture is given: "%s"', (name) => {
  expect(guidePicture(name)).toBeUndefined();
});

test.each(PAGES.map((p) => [p.title, p] as const))('the example of %s is kept by the demo world', async (_, page) => {
  for (const { name, lines } of blocksOf(page.text)) {
    const [kind, job] = name.split(' ');
    for (const [i, line] of lines.entries()) {
      const key = `${page.id} ${name} ${i}`;
      if (kind === 'job')
        expect(await enterLine(db, Number(job), line, page.id === 'prove' ? 'volt' : 'ohm', key)).toMatchObject({
          saved: true,
        });
      else if (kind === 'stock') expect(await enterStockLine(db, line, key)).toMatchObject({ saved: true });
      // What a terminal takes is tried with the command line's own tests.
      else expect(['sh', 'text']).toContain(name);
    }
  }
});
