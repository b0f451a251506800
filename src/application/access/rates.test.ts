import { Rates, readsOf, tooMany } from './rates';

beforeEach(() => jest.useFakeTimers({ now: new Date('2026-11-30T08:00:00Z') }));
afterEach(() => jest.useRealTimers());

const asked = (rates: Rates, client: string, method: string, times: number): Promise<number[]> =>
  Promise.all(Array.from({ length: times }, () => rates.waitS(client, method)));

test('a bench that asks too much waits, the others do not', async () => {
  const rates = new Rates({ points: 3, duration: 60 }, { points: 5, duration: 60 });
  expect(await asked(rates, 'Ada', 'POST', 4)).toEqual([0, 0, 0, 60]);
  expect(await asked(rates, 'Bo', 'POST', 3)).toEqual([0, 0, 0]);
});

test('pages and entries are counted apart: who leafs may still enter', async () => {
  const rates = new Rates({ points: 3, duration: 60 }, { points: 2, duration: 60 });
  expect(await asked(rates, 'Ada', 'GET', 3)).toEqual([0, 0, 60]);
  expect(await asked(rates, 'Ada', 'HEAD', 1)).toEqual([60]);
  expect(await asked(rates, 'Ada', 'POST', 3)).toEqual([0, 0, 0]);
});

test('after its time it goes on, and is told how long that is', async () => {
  const rates = new Rates({ points: 1, duration: 60 });
  expect(await asked(rates, 'Ada', 'POST', 2)).toEqual([0, 60]);
  jest.advanceTimersByTime(45_000);
  expect(await asked(rates, 'Ada', 'POST', 1)).toEqual([15]);
  jest.advanceTimersByTime(16_000);
  expect(await asked(rates, 'Ada', 'POST', 1)).toEqual([0]);
  expect(tooMany(15)).toContain('in 15 s');
});

test('a shop’s pace is far below what is let through: five entries a second for three minutes', async () => {
  const rates = new Rates();
  for (let s = 0; s < 180; s++) {
    expect(await asked(rates, 'Ada', 'POST', 5)).toEqual([0, 0, 0, 0, 0]);
    jest.advanceTimersByTime(1000);
  }
});

test.each([
  ['1000', 1000],
  ['1000.7', 1000],
  [undefined, 2400],
  ['', 2400],
  ['0', 2400],
  ['-5', 2400],
  ['many', 2400],
  ['1e9', 2400],
])('a shop may allow fewer requests, never more: "%s" is %d a minute', (text, reads) => {
  expect(readsOf(text)).toBe(reads);
});
