import { jStat } from 'jstat';
import { lotArrivals, type StockBody, type StockEvent } from '.';

const lot = (id: string): StockBody => ({
  kind: 'lotIn',
  lot: id,
  typeId: 'heron-pd-r2',
  count: 50,
  unitPrice: 4,
  sealed: true,
});

/** A lot of which the first so many chips were fitted, some of them dead. */
function events(id: string, fitted: number, dead: number): StockBody[] {
  return Array.from({ length: fitted }, (_, k): StockBody[] => {
    const chip = `C-${id.slice(2)}${k + 10}`;
    return [
      { kind: 'take', lot: id, chip },
      { kind: 'move', chips: [chip], to: { kind: 'fitted', job: k + 1, ref: 'U4' } },
      { kind: 'judged', chip, condition: k < dead ? 'dead' : 'sound', why: 'proof' },
    ];
  }).flat();
}

const all = (...bodies: StockBody[]): StockEvent[] =>
  bodies.map((body, k) => ({ seq: k + 1, at: '2026-11-24T08:00:00Z', bench: 'Bench 1', actor: 'Bench lead', body }));

test('a lot’s share of dead chips is the Beta posterior with its 95 % bounds (jStat)', () => {
  const [one, two] = lotArrivals(all(lot('L-1'), lot('L-2'), ...events('L-1', 8, 3)), 0.03);
  expect(one).toMatchObject({ lot: 'L-1', tried: 8, dead: 3 });
  expect(one.mean).toBeCloseTo((0.6 + 3) / 28, 12);
  expect(one.low).toBeCloseTo(jStat.beta.inv(0.025, 3.6, 24.4), 7);
  expect(one.high).toBeCloseTo(jStat.beta.inv(0.975, 3.6, 24.4), 7);
  expect(two).toMatchObject({ lot: 'L-2', tried: 0, dead: 0 });
  expect(two.mean).toBeCloseTo(0.03, 12);
});

test('a chip that was dead before anybody fitted it says nothing of arrivals', () => {
  const early: StockBody[] = [
    { kind: 'take', lot: 'L-1', chip: 'C-900' },
    { kind: 'judged', chip: 'C-900', condition: 'dead', why: 'fell' },
  ];
  expect(lotArrivals(all(lot('L-1'), ...early), 0.03)[0]).toMatchObject({ tried: 0, dead: 0 });
});

test('a chip that is fitted and not judged yet, or whose verdict was taken back, says nothing', () => {
  const chip = 'C-110';
  const one = events('L-1', 1, 0);
  const back: StockBody = { kind: 'judged', chip, condition: 'suspect', why: 'taken back' };
  expect(lotArrivals(all(lot('L-1'), ...one.slice(0, 2)), 0.03)[0].tried).toBe(0);
  expect(lotArrivals(all(lot('L-1'), ...one), 0.03)[0].tried).toBe(1);
  expect(lotArrivals(all(lot('L-1'), ...one, back), 0.03)[0].tried).toBe(0);
});
