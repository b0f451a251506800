import { createHash } from 'node:crypto';
import { ChainCheck, sealOf, type ChainedEntry, type ChainFound } from './chain';

/** The seal as another implementation makes it: SHA-256 of the JSON text (FIPS 180-4, by Node's own library). */
const sealed = (before: string, columns: ChainedEntry['columns']): string =>
  createHash('sha256')
    .update(JSON.stringify([before, ...columns]))
    .digest('hex');

const chainOf = (...texts: string[]): ChainedEntry[] => {
  const entries: ChainedEntry[] = [];
  for (const [i, text] of texts.entries()) {
    const columns = [i + 1, text, null];
    entries.push({ id: i + 1, columns, seal: sealOf(entries.at(-1)?.seal ?? null, columns) });
  }
  return entries;
};
const look = (entries: readonly ChainedEntry[], writtenDown?: string): ChainFound => {
  const check = new ChainCheck(writtenDown);
  for (const entry of entries) check.take(entry);
  return check.found();
};
const LOG = chainOf('a', 'b', 'c', 'd');
const old = (id: number): ChainedEntry => ({ id, columns: [id, 'old'], seal: null });

test('a seal is the hash of the one before and the entry’s own columns', () => {
  expect(LOG[0].seal).toBe(sealed('the first entry', [1, 'a', null]));
  expect(LOG[1].seal).toBe(sealed(LOG[0].seal!, [2, 'b', null]));
});

test('a log that is as it was sealed', () => {
  expect(look(LOG)).toEqual({ sealed: 4, before: 0, seal: LOG[3].seal, broken: undefined });
  expect(look([])).toEqual({ sealed: 0, before: 0, seal: null, broken: undefined });
});

test('entries from before seals were kept are counted, and break nothing', () => {
  expect(look([old(-1), old(0), ...LOG])).toMatchObject({ sealed: 4, before: 2, broken: undefined });
});

describe('what breaks it, at its place', () => {
  const NOT_SEALED = 'is not what was sealed, or one before it is missing';
  test.each<[string, readonly ChainedEntry[], number, string]>([
    ['a changed one', LOG.map((e) => (e.id === 2 ? { ...e, columns: [2, 'B', null] } : e)), 2, NOT_SEALED],
    ['one taken out', LOG.filter((e) => e.id !== 2), 3, NOT_SEALED],
    [
      'one slipped in',
      [LOG[0], { id: 9, columns: [9, 'x'], seal: null }, ...LOG.slice(1)],
      9,
      'has no seal, after entries that have one',
    ],
    ['two that changed places', [LOG[0], LOG[2], LOG[1], LOG[3]], 3, NOT_SEALED],
  ])('%s', (_, entries, id, message) => expect(look(entries).broken).toEqual({ id, message }));

  test('only the first is told, and nothing after it counts', () => {
    const found = look(LOG.map((e) => (e.id > 1 ? { ...e, columns: ['x'] } : e)));
    expect(found).toMatchObject({ sealed: 1, seal: LOG[0].seal, broken: { id: 2 } });
  });
});

test('entries cut off at the end show against a seal that was written down', () => {
  expect(look(LOG.slice(0, 3)).broken).toBeUndefined();
  expect(look(LOG.slice(0, 3), LOG[3].seal!).broken).toEqual({
    id: 0,
    message: 'the seal that was written down is not in it: entries were cut off or made anew',
  });
  for (const { seal } of LOG) expect(look(LOG, seal!).broken).toBeUndefined();
});
