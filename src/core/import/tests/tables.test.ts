import { importFile, meterTable, thermoTable, type Outcome } from '..';
import type { TableSummary } from '../table/read';

const file = (text: string, name = 'file.csv') => ({ name, bytes: new TextEncoder().encode(text) });
const meter = (text: string, answers = {}) => meterTable.read(file(text), answers);
const rows = (n: number, row: (i: number) => string): string => Array.from({ length: n }, (_, i) => row(i)).join('\n');

function value<T>(outcome: Outcome<T>): T {
  if (outcome.kind === 'refused') throw new Error(outcome.problems[0].message);
  if (outcome.value === undefined) throw new Error(outcome.questions.map((q) => q.why).join(' '));
  return outcome.value;
}
const asked = (outcome: Outcome<unknown>): string[] =>
  outcome.kind === 'refused' ? [`refused: ${outcome.problems[0].message}`] : outcome.questions.map((q) => q.id);

describe('layouts of meters', () => {
  test('one value a row with its channel is taken apart', () => {
    const text = `Time,Channel,Value,Unit\n${rows(20, (i) => `${i},VBUS,5.02,V\n${i},IBUS,${100 + i},mA`)}`;
    const { trace } = value(meter(text));
    expect([...trace.timesS].slice(0, 3)).toEqual([0, 1, 2]);
    expect(trace.volts[3]).toBe(5.02);
    expect(trace.amps[3]).toBeCloseTo(0.103, 9);
  });

  test('a column of units behind each value gives the scale row by row', () => {
    const text = `Time,Voltage,Unit,Current,Unit\n${rows(20, (i) => `${i},5.02,V,${i < 10 ? `${900 + i},mA` : `1.${i},A`}`)}`;
    const { trace } = value(meter(text));
    expect(trace.amps[9]).toBeCloseTo(0.909, 9);
    expect(trace.amps[10]).toBeCloseTo(1.1, 9);
  });

  test('a header in a remark, a declared separator, and a footer', () => {
    const text = `sep=;\n# Time (s);Voltage (V);Current (A)\n${rows(20, (i) => `${i};5,02;0,100`)}\nTotal;;\n`;
    const outcome = meter(text);
    expect(value(outcome).trace.volts[0]).toBe(5.02);
    expect(outcome.kind === 'understood' && outcome.notes.join(' ')).toContain(
      'after the last row left out: "Total;;"',
    );
  });

  test('without a header each column is asked, and what a person says is taken', () => {
    const text = rows(30, (i) => `${(i / 10).toFixed(1)},15.02,0.610`);
    expect(asked(meter(text))).toEqual(['time', 'voltage', 'current']);
    const { trace } = value(meter(text, { time: 'column 1', voltage: 'column 2', current: 'column 3' }));
    expect(trace.timesS[1]).toBeCloseTo(0.1, 9);
    expect(trace.amps[0]).toBe(0.61);
  });

  test('without times the interval is asked; a rate in the preamble answers it', () => {
    const body = `Voltage (V),Current (A)\n${rows(30, () => '5.02,0.100')}`;
    expect(asked(meter(body))).toEqual(['interval']);
    expect(value(meter(body, { interval: '10 Hz' })).trace.timesS[1]).toBeCloseTo(0.1, 9);
    expect(value(meter(`Sample interval: 200 ms\n${body}`)).trace.timesS[1]).toBeCloseTo(0.2, 9);
  });
});

describe('what no port carries is asked', () => {
  test('seconds under a header of milliseconds, by samples closer than a meter takes them', () => {
    const text = (step: number): string =>
      `Time(ms),Voltage(V),Current(A)\n${rows(30, (i) => `${(i * step).toFixed(1)},5.02,0.100`)}`;
    expect(asked(meter(text(0.1)))).toEqual(['unit:Time']);
    expect(value(meter(text(0.1), { 'unit:Time': 's' })).trace.timesS[1]).toBeCloseTo(0.1, 9);
    expect(value(meter(text(0.1), { 'unit:Time': 'ms' })).trace.timesS[1]).toBeCloseTo(1e-4, 9);
    expect(asked(meter(text(1)))).toEqual([]);
  });

  test.each([
    ['8.9 without a unit as current', 'time,voltage,current', '5.02,8.90', ['unit:current']],
    ['633 A', 'Time (s),Voltage (V),Current (A)', '5.02,633', ['unit:Current']],
    ['5020 V', 'Time (s),Voltage (V),Current (A)', '5020,0.100', ['unit:Voltage']],
    ['5 mV on a bus', 'Time (s),Voltage (mV),Current (A)', '5.02,0.100', ['unit:Voltage']],
    ['coarse figures that may be amps or milliamps', 'time,voltage,current', '5.02,2.5', ['unit:current']],
    ['two columns that may be the bus', 'time,VBUS (V),Bus voltage (V),Current (A)', '5.02,5.03,0.100', ['voltage']],
  ])('%s', (_, header, cells, ids) => {
    expect(asked(meter(`${header}\n${rows(20, (i) => `${i / 10},${cells}`)}`))).toEqual(ids);
  });

  test('watts settle the unit of a current', () => {
    const text = `time,voltage,current,Power (W)\n${rows(20, (i) => `${i},5.00,${400 + i},${((5 * (400 + i)) / 1000).toFixed(3)}`)}`;
    expect(value(meter(text)).trace.amps[0]).toBeCloseTo(0.4, 9);
  });
});

describe('times', () => {
  const at = (cells: readonly string[]): number[] => {
    const text = `Time,Voltage (V),Current (A)\n${cells.map((c) => `${c},5.02,0.100`).join('\n')}`;
    return [...value(meter(text)).trace.timesS];
  };

  test.each([
    ['over midnight', ['23:59:58', '23:59:59', '00:00:00', '00:00:01'], [0, 1, 2, 3]],
    ['a clock of twelve hours', ['11:59:59 PM', '12:00:00 AM', '12:00:01 AM'], [0, 1, 2]],
    [
      'a zone that changes',
      ['2026-03-29T01:59:59+01:00', '2026-03-29T03:00:00+02:00', '2026-03-29T03:00:01+02:00'],
      [0, 1, 2],
    ],
    ['minutes and seconds', ['59:59.5', '60:00.0', '60:00.5'], [0, 0.5, 1]],
    ['day first', ['31/03/2026 23:59:59', '01/04/2026 00:00:00', '01/04/2026 00:00:01'], [0, 1, 2]],
    ['month first', ['03/31/2026 11:59:59 PM', '04/01/2026 12:00:00 AM', '04/01/2026 12:00:01 AM'], [0, 1, 2]],
    ['a month in words', ['14-Mar-2026 10:00:00', '14-Mar-2026 10:00:01', '14-Mar-2026 10:00:02'], [0, 1, 2]],
  ])('%s', (_, cells, seconds) => {
    at(cells).forEach((t, i) => expect(t).toBeCloseTo(seconds[i], 6));
  });

  test('several samples in each second are spread over it', () => {
    const cells = Array.from({ length: 40 }, (_, i) => `10:00:${String(Math.floor((i + 7) / 10)).padStart(2, '0')}`);
    at(cells).forEach((t, i) => expect(t).toBeCloseTo(i / 10, 6));
  });

  test('two figures may be hours and minutes or minutes and seconds: asked', () => {
    const text = `Time,Voltage (V),Current (A)\n${rows(20, (i) => `10:${10 + i},5.02,0.100`)}`;
    expect(asked(meter(text))).toEqual(['form:Time']);
    expect(value(meter(text, { 'form:Time': 'hh:mm' })).trace.timesS[1]).toBe(60);
  });

  test('the newest row first is read from the last one on', () => {
    const outcome = meter(
      `time_s,voltage_v,current_a\n${rows(20, (i) => `${(1.9 - i / 10).toFixed(1)},5.02,0.1${19 - i}`)}`,
    );
    const { trace } = value(outcome);
    expect([trace.timesS[1], trace.amps[1]]).toEqual([expect.closeTo(0.1, 9), expect.closeTo(0.11, 9)]);
    expect(outcome.kind === 'understood' && outcome.notes).toContain(
      'The newest row stands first: read from the last one on.',
    );
  });

  test('sums below the samples are no samples, and are named', () => {
    const outcome = meter(
      `time_s,voltage_v,current_a\n${rows(20, (i) => `${i},5.02,0.100`)}\nMax,15.11,0.633\nMean,14.1,0.4`,
    );
    expect(Math.max(...value(outcome).trace.volts)).toBe(5.02);
    expect(outcome.kind === 'understood' && outcome.notes.join(' ')).toContain(
      '2 rows have no time and are left out: "Max,15.11,0.633"',
    );
  });

  test('minutes are minutes by their name; a least beside a most is no time', () => {
    expect(
      value(meter(`Minutes,Voltage,Current\n${rows(20, (i) => `${(i / 2).toFixed(1)},5.02,0.100`)}`)).trace.timesS[1],
    ).toBe(30);
    expect(asked(meter(`min,max,voltage (V),current (A)\n${rows(20, (i) => `${i},${i + 1},5.02,0.100`)}`))).toContain(
      'time',
    );
  });

  test('a row of units may leave the counter without one', () => {
    const outcome = meter(`Sample,Elapsed,Vbus,Ibus\n#,[ms],[mV],[mA]\n${rows(20, (i) => `${i},${i * 100},5020,100`)}`);
    const summary = outcome.kind === 'understood' ? outcome.summary : undefined;
    expect(summary?.columns.map((c) => `${c.name} ${c.unit}`)).toEqual([
      'Elapsed s',
      'Sample null',
      'Vbus V',
      'Ibus A',
    ]);
    expect(value(outcome).trace.timesS[1]).toBeCloseTo(0.1, 9);
  });

  test('times that go back are refused, and so is a clock that stands', () => {
    expect(asked(meter(`Time (s),Voltage (V),Current (A)\n1,5,0.100\n2,5,0.100\n1,5,0.100`))[0]).toMatch(
      /^refused: Expected times that go on; row 3 lies 1\.000 s before/,
    );
    expect(asked(meter(`Time (s),Voltage (V),Current (A)\n${rows(20, () => '1,5,0.100')}`))[0]).toMatch(
      /^refused: Expected times that go on; all 20 rows/,
    );
  });
});

describe('thermocouples', () => {
  const warm = (i: number): string => (24 + Math.max(0, i - 5) * 3).toFixed(1);

  test('a start that no room has is asked: 70 may be °F', () => {
    const text = `Time (s),T1\n${rows(30, (i) => `${i},${(75 + 5 * Math.max(0, i - 5)).toFixed(1)}`)}`;
    const outcome = thermoTable.read(file(text), {});
    expect(asked(outcome)).toEqual(['unit:T1']);
    // 75 °F are 23.9 °C: the conversion is exact, (75 − 32) · 5/9.
    expect(value(thermoTable.read(file(text), { 'unit:T1': '°F' })).probes[0].readC[0]).toBeCloseTo(23.889, 3);
  });

  test('an instrument’s sign for an open probe is a gap and is named; many such readings are refused with the first', () => {
    const at = (open: (i: number) => boolean) =>
      thermoTable.read(
        file(`Scan,time_s,T1_C\n${rows(40, (i) => `${i + 1},${i},${open(i) ? '9999.0' : warm(i)}`)}`),
        {},
      );
    const outcome = at((i) => i === 20);
    expect(value(outcome).probes[0].readC[20]).toBeNaN();
    expect(outcome.kind === 'understood' && outcome.notes.join(' ')).toContain(
      'T1: a reading of 9999 is no temperature',
    );
    expect(asked(at((i) => i > 20))).toEqual([
      'refused: Expected readings from -30 to 600 °C; got 9999 °C in T1, row 22.',
    ]);
  });

  test('an open probe stays a gap', () => {
    const text = `Time (s),T1 (°C),T2 (°C)\n${rows(30, (i) => `${i},${warm(i)},${i % 7 === 3 ? 'OL' : warm(i)}`)}`;
    const log = value(thermoTable.read(file(text), {}));
    expect(log.probes[1].readC[3]).toBeNaN();
    expect(log.probes[0].readC[3]).toBe(24);
    // The first reading that is more than 3 K above the start is at 7 s; the air came on two seconds before.
    expect(log.airOnS).toBe(5);
  });

  test.each([
    ['nothing but words', 'hello\nworld'],
    ['too few rows', 'Time (s),T1 (°C)\n0,22\n1,23'],
    ['nothing that warms', `Time (s),T1 (°C)\n${rows(15, (i) => `${i},${22 + (i % 2)}`)}`],
    ['a range that no probe has', `Time (s),T1 (°C)\n${rows(15, (i) => `${i},${25 + 100 * i}`)}`],
  ])('%s gets a sentence', (_, text) => {
    expect(asked(thermoTable.read(file(text), {}))[0]).toMatch(/^refused: Expected/);
  });
});

test('what a table holds is summed up in base units', () => {
  const text = `Time (ms),Voltage (mV),Current (mA)\n${rows(4, (i) => `${100 * i},${5000 + i},${10 * i}`)}`;
  const { importer, outcome } = importFile(file(text));
  expect(importer).toBe('meter');
  expect(outcome.kind === 'understood' && (outcome.summary as TableSummary)).toMatchObject({
    durationS: 0.3,
    columns: [
      { name: 'Time', unit: 's', count: 4, last: 0.3 },
      { name: 'Voltage', unit: 'V', first: 5, max: 5.003 },
      { name: 'Current', unit: 'A', min: 0, max: 0.03 },
    ],
  });
});

test('whole figures in groups of three are asked, not taken for decimals', () => {
  const text = `Time (s);Voltage (mV);Current (mA)\n${rows(20, (i) => `${i};5.020;${i < 10 ? 900 + i : `1.0${10 + i}`}`)}`;
  expect(asked(meter(text))[0]).toBe('decimal');
});
