import { problemText } from '../result';
import { importThermoCsv, wholeSeconds } from './log-csv';

const rows = (n: number, row: (i: number) => string): string => Array.from({ length: n }, (_, i) => row(i)).join('\n');

test('time is the column that only grows; every other one in range is a probe, with its name', () => {
  const log = importThermoCsv(
    `T1 slug,time s,T2 board\n${rows(30, (i) => `${22 + (i > 4 ? 2 * (i - 4) : 0)},${i},${22 + i / 10}`)}`,
  );
  if (!log.ok) throw new Error(problemText(log.problems));
  expect(log.value.probes.map((p) => p.name)).toEqual(['T1 slug', 'T2 board']);
  // The first reading above 25 °C is at 6 s.
  expect(log.value.airOnS).toBe(4);
  expect(wholeSeconds(log.value, log.value.probes[0].readC, 4).slice(0, 3)).toEqual([22, 24, 26]);
});

test('milliseconds and decimal commas are understood', () => {
  const log = importThermoCsv(rows(20, (i) => `${1000 + 500 * i};"${22 + i},5"`));
  if (!log.ok) throw new Error(problemText(log.problems));
  expect(log.value.timesS[2]).toBe(1);
  expect(log.value.probes[0].readC[3]).toBe(25.5);
  expect(wholeSeconds(log.value, log.value.probes[0].readC, 0)[1]).toBe(24.5);
});

test.each([
  ['nothing but words', 'hello\nworld'],
  ['too few rows', '0,22\n1,23'],
  ['a torn row', `${rows(15, (i) => `${i},${22 + i}`)}\n15,x`],
  ['no time', rows(15, (i) => `${i % 2},${22 + (i % 3)}`)],
  ['no probe in range', rows(15, (i) => `${i},${5000 + (i % 2)}`)],
  ['nothing that warms', rows(15, (i) => `${i},${22 + (i % 2)}`)],
])('%s gets a sentence', (_, text) => {
  const log = importThermoCsv(text);
  expect(!log.ok && problemText(log.problems)).toMatch(/^Expected .*; got .*\.$/);
});
