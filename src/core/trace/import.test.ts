import { seededRandom } from '../math';
import { importMeterCsv, simulateTrace, type MeterImport, type Trace } from '.';

const trace = simulateTrace([{ name: 'hold', durationS: 4, volts: 15, amps: [0.6, 0.6] }], seededRandom(1));

const rows = (write: (t: number, v: number, a: number) => string, of: Trace = trace): string =>
  [...of.timesS].map((t, i) => write(t, of.volts[i], of.amps[i])).join('\n');

function imported(text: string, given?: Parameters<typeof importMeterCsv>[1]): MeterImport {
  const result = importMeterCsv(text, given);
  if (!result.ok) throw new Error(result.problems[0].message);
  return result.value;
}

/** Same trace within what the text rounds away. */
function expectSame({ trace: got }: MeterImport): void {
  expect(got.timesS.length).toBe(trace.timesS.length);
  trace.timesS.forEach((t, i) => {
    expect(Math.abs(got.timesS[i] - t)).toBeLessThan(0.02);
    expect(Math.abs(got.volts[i] - trace.volts[i])).toBeLessThan(0.002);
    expect(Math.abs(got.amps[i] - trace.amps[i])).toBeLessThan(0.002);
  });
}

test('columns are taken by whole names: words that begin like a unit are no unit', () => {
  const body = rows((_, v, a) => `${v.toFixed(4)};${a.toFixed(4)}`);
  const { choice, doubts } = imported(`one;two\n${body}`);
  expect(choice).toMatchObject({ time: null, volts: 0, amps: 1 });
  expect(doubts).toEqual(['Taken as volts: one; as amps: two.', 'No time column: taken as 0.1 s a sample.']);
  expect(imported(`two;one\n${body}`, { volts: 1, amps: 0, stepS: 1 }).trace.timesS[1]).toBe(1);
});

describe('files of any meter', () => {
  test.each<[string, string]>([
    [
      'plain, with units',
      `Time (s),Voltage (V),Current (A)\n${rows((t, v, a) => `${t.toFixed(2)},${v.toFixed(4)},${a.toFixed(4)}`)}`,
    ],
    [
      'milliseconds, millivolts, milliamps',
      `t [ms],U [mV],I [mA]\n${rows((t, v, a) => `${(t * 1000).toFixed(0)},${(v * 1000).toFixed(0)},${(a * 1000).toFixed(0)}`)}`,
    ],
    [
      'semicolons and decimal commas',
      `Zeit (s);Spannung (V);Strom (A)\n${rows((t, v, a) => [t.toFixed(2), v.toFixed(4), a.toFixed(4)].map((x) => x.replace('.', ',')).join(';'))}`,
    ],
    [
      'tabs, columns in another order',
      `Current (A)\tTime (s)\tVoltage (V)\n${rows((t, v, a) => `${a.toFixed(4)}\t${t.toFixed(2)}\t${v.toFixed(4)}`)}`,
    ],
    [
      'words before the header',
      `USB meter log\nfirmware 3\n\nTime (s),Voltage (V),Current (A)\n${rows((t, v, a) => `${t.toFixed(2)},${v.toFixed(4)},${a.toFixed(4)}`)}`,
    ],
    [
      'more columns than wanted',
      `Time (s),Voltage (V),Current (A),Power (W),D+ (V)\n${rows((t, v, a) => `${t.toFixed(2)},${v.toFixed(4)},${a.toFixed(4)},${(v * a).toFixed(3)},0.6`)}`,
    ],
    [
      'clock times',
      `Timestamp,Voltage (V),Current (A)\n${rows((t, v, a) => `2026-11-24 08:10:${(t + 3).toFixed(2).padStart(5, '0')},${v.toFixed(4)},${a.toFixed(4)}`)}`,
    ],
    [
      'a current that counts backwards',
      `Time (s),Voltage (V),Current (A)\n${rows((t, v, a) => `${t.toFixed(2)},${v.toFixed(4)},${(-a).toFixed(4)}`)}`,
    ],
    [
      'quoted cells and Windows line ends',
      `"Time (s)","Voltage (V)","Current (A)"\r\n${rows((t, v, a) => `"${t.toFixed(2)}","${v.toFixed(4)}","${a.toFixed(4)}"`).replace(/\n/g, '\r\n')}`,
    ],
  ])('%s', (_, text) => {
    const result = imported(text);
    expectSame(result);
    expect(result.doubts).toEqual([]);
  });

  test('without a header or a time the guess is told as a doubt', () => {
    const result = imported(rows((_, v, a) => `${v.toFixed(4)},${a.toFixed(4)}`));
    expectSame(result);
    expect(result.doubts).toEqual([
      'Taken as volts: column 1; as amps: column 2.',
      'No time column: taken as 0.1 s a sample.',
    ]);
  });

  test('a user’s choice overrules the guess, and nothing is doubted then', () => {
    const swapped = imported(
      rows((_, v, a) => `${a.toFixed(4)},${v.toFixed(4)}`),
      { volts: 1, amps: 0, voltScale: 1, ampScale: 1 },
    );
    expectSame(swapped);
    expect(swapped.doubts).toEqual([]);
  });

  test('milli-units without a header are seen from their size', () => {
    expectSame(
      imported(
        rows((t, v, a) => `${t.toFixed(2)},${(v * 1000).toFixed(0)},${(a * 1000).toFixed(0)}`),
        { ampScale: 1e-3 },
      ),
    );
  });

  test('a few broken rows are left out', () => {
    const lines = rows((t, v, a) => `${t.toFixed(2)},${v.toFixed(4)},${a.toFixed(4)}`).split('\n');
    lines[20] = '2.0,ERR,ERR';
    expect(imported(`Time (s),Voltage (V),Current (A)\n${lines.join('\n')}`).trace.timesS.length).toBe(
      trace.timesS.length - 1,
    );
  });
});

describe('files that are none get a sentence', () => {
  test.each<[string, string, RegExp]>([
    ['empty', '  \n ', /^Expected a meter’s CSV file; got an empty file\.$/],
    ['words', 'hello\nthere\n', /^Expected rows with volts and amps; got none in 2 rows\.$/],
    [
      'half broken',
      `Time (s),Voltage (V),Current (A)\n${Array.from({ length: 20 }, (_, i) => (i % 2 ? `${i},5,0.1` : `${i},x,0.1`)).join('\n')}`,
      /^Expected time, volts and amps in every row, time going on; \d+ of \d+ rows are not so, first row \d+: \"\d+, x, 0\.1\"\.$/,
    ],
    [
      'time that stands still',
      `Time (s),Voltage (V),Current (A)\n${Array(20).fill('1,5,0.1').join('\n')}`,
      /^Expected time, volts and amps in every row, time going on; 19 of 20/,
    ],
    ['too short', 'Time (s),Voltage (V),Current (A)\n0,5,0.1\n1,5,0.1', /^Expected three samples or more; got 2\.$/],
    [
      'wrongly scaled',
      `Time (s),Voltage (V),Current (A)\n${Array.from({ length: 20 }, (_, i) => `${i},5020,0.1`).join('\n')}`,
      /^Expected a port voltage up to 60 V; got 5020\.0: name the column and its unit\.$/,
    ],
  ])('%s', (_, text, words) => {
    const result = importMeterCsv(text);
    expect(result.ok ? '' : result.problems[0].message).toMatch(words);
  });
});
