/** The stock's log as it was stored before events had versions, kept as it lay in the database. */
import { readFileSync } from 'node:fs';
import path from 'node:path';
import { demoStock } from '../../../demo/files';
import { foldStock } from './state';
import { stockFromStored, stockFromText, stockToStored } from './stored';
import type { StockEvent } from './events';

const old = JSON.parse(readFileSync(path.join(__dirname, 'tests/2026-11-stock.json'), 'utf8')) as (Omit<
  StockEvent,
  'body'
> & { body: object })[];

test('every old row is read, and folds to what the same stock folds to now', () => {
  const events = old.map((row): StockEvent => {
    const body = stockFromStored(row.body);
    if (!body.ok) throw new Error(body.problems[0].message);
    return { ...row, body: body.value };
  });
  expect(foldStock(events)).toEqual(foldStock(demoStock()));
});

test('what is written now has its type and version, and is read back as it was', () => {
  for (const { body } of demoStock()) {
    const stored = stockToStored(body);
    expect([stored.type, stored.version]).toEqual([body.kind, 1]);
    const back = stockFromText(JSON.stringify(stored));
    expect(back.ok && back.value).toEqual(body);
  }
});

test('what cannot be read is a problem that says what was expected', () => {
  const problem = (input: unknown): string => {
    const read = stockFromStored(input);
    return read.ok ? '' : read.problems[0].message;
  };
  expect(problem({ type: 'gossip', version: 1, data: {} })).toMatch(
    /^Expected one of the events lotIn, .*got "gossip"/,
  );
  expect(problem({ type: 'take', version: 3, data: {} })).toMatch(/newer program/);
  expect(problem({ kind: 'take', lot: 7 })).toMatch(/^take, lot/);
  expect(stockFromText('{torn').ok).toBe(false);
});
