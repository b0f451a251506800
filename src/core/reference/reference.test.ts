import fc from 'fast-check';
import { seededRandom } from '../math';
import { predictionInterval, statsOf } from './stats';
import { parseReferencesCsv, referencesCsv, referenceTable } from './table';

describe('prediction intervals', () => {
  // mean ± t(0.975, n−1)·s·√(1+1/n) with t from Student's table: n−1 = 1 → 12.706, 2 → 4.303, 4 → 2.776, 9 → 2.262, 29 → 2.045.
  test.each([
    [2, 12.706],
    [3, 4.303],
    [5, 2.776],
    [10, 2.262],
    [30, 2.045],
  ])('of %s good boards use the tabled t %s', (n, t) => {
    const { low, high } = predictionInterval({ n, mean: 100, sd: 10 })!;
    const half = t * 10 * Math.sqrt(1 + 1 / n);
    expect((high - low) / 2 / half).toBeCloseTo(1, 3);
    expect((high + low) / 2).toBeCloseTo(100, 9);
  });

  test('hold the next good board 95 times in 100', () => {
    const random = seededRandom(9);
    const normal = (): number => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
    let inside = 0;
    const rounds = 4000;
    for (let i = 0; i < rounds; i++) {
      const draw = (): number => 0.5 + 0.08 * normal();
      const { low, high } = predictionInterval(statsOf([draw(), draw(), draw(), draw()]))!;
      const next = draw();
      if (next >= low && next <= high) inside++;
    }
    // Four standard errors of a share of 0.95 in 4000.
    expect(Math.abs(inside / rounds - 0.95)).toBeLessThan(0.014);
  });

  test('are never narrower than what a hand meter tells, and want two boards', () => {
    const { low, high } = predictionInterval(statsOf([0.262, 0.262, 0.262]))!;
    expect(high - low).toBeGreaterThan(0.003);
    expect(predictionInterval(statsOf([0.262]))).toBeUndefined();
    expect(() => statsOf([])).toThrow('one reference reading');
  });
});

test('mean and spread of a small sample, worked by hand', () => {
  expect(statsOf([2, 4, 4, 4, 5, 5, 7, 9])).toMatchObject({ n: 8, mean: 5 });
  expect(statsOf([2, 4, 4, 4, 5, 5, 7, 9]).sd).toBeCloseTo(Math.sqrt(32 / 7), 12);
});

describe('references as CSV', () => {
  const reading = fc.record({
    boardId: fc.constantFrom('heronlog-4-c', 'marshdesk-2-b'),
    point: fc.constantFrom('pin:J1:A5', 'ohm:AON33', 'volts:VIN'),
    value: fc.double({ min: -3, max: 1e6, noNaN: true }).map((v) => v + 0),
    source: fc.constantFrom('job 27', 'good board, the third', 'said "fine"'),
  });

  test('come back as they went out', () => {
    fc.assert(
      fc.property(fc.array(reading, { minLength: 1, maxLength: 20 }), (list) => {
        const back = parseReferencesCsv(referencesCsv(list));
        expect(back.ok && back.value).toEqual(list);
      }),
      { seed: 3, numRuns: 100 },
    );
  });

  test('are gathered by point', () => {
    const at = (point: string, value: number) => ({ boardId: 'b', point, value, source: '' });
    const table = referenceTable([at('ohm:VIN', 10), at('ohm:VIN', 12), at('pin:J1:A5', 0.26)]);
    expect(table['ohm:VIN']).toMatchObject({ n: 2, mean: 11 });
    expect(table['pin:J1:A5'].n).toBe(1);
  });

  test.each([
    ['', 'Expected the columns board, point, value, source; missing: board, point, value, source.'],
    ['board,point,value\nb,p,1', 'Expected the columns board, point, value, source; missing: source.'],
    ['board,point,value,source', 'Expected one reading or more; got a header only.'],
  ])('%j is answered with a sentence', (text, words) => {
    const answer = parseReferencesCsv(text);
    expect(!answer.ok && answer.problems[0].message).toBe(words);
  });

  test('a faulty row is named by its line and nothing is taken', () => {
    const answer = parseReferencesCsv('board,point,value,source\nb,ohm:VIN,1,x\nb,ohm:VIN,much,x\n');
    expect(!answer.ok && answer.problems).toEqual([
      { at: 'line 3', message: 'expected board, point and a figure; got "b, ohm:VIN, much, x".' },
    ]);
  });
});
