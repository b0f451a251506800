/** Styles of files that meters, loggers, analysers and layout programs write: each by hand, of one made-up charge and one made-up run. */
import { importFile, readCapture, type Answers } from '..';
import { captureCsv, conversation, edgesOf, OFFERS_65W, messageWords } from '../../usb';
import type { CaptureSummary } from '../capture/bank';
import type { TableSummary } from '../table/read';

const CHARGE = Array.from({ length: 120 }, (_, i) => {
  const t = i / 10;
  return { t, v: t < 3 ? 5.02 : 14.87, a: t < 3 ? 0.012 : 0.1 + 0.05 * (t - 3) };
});
type Sample = (typeof CHARGE)[number];

const latin1 = (text: string): Uint8Array => Uint8Array.from(text, (c) => c.charCodeAt(0));
const utf8 = (text: string): Uint8Array => new TextEncoder().encode(text);
const comma = (text: string): string => text.replaceAll('.', ',');
const table = (header: string, row: (s: Sample, i: number) => string): string =>
  `${header}\n${CHARGE.map(row).join('\n')}\n`;
const grouped = (v: number): string => Math.round(v).toLocaleString('en-US');

const read = (bytes: Uint8Array, answers: Answers = {}, name = 'file.csv') => {
  const { importer, outcome } = importFile({ name, bytes }, answers);
  if (outcome.kind === 'refused') return { importer, refused: outcome.problems[0].message, asked: [] as string[] };
  return {
    importer,
    asked: outcome.questions.map((q) => q.id),
    summary: outcome.summary as TableSummary,
    notes: outcome.notes,
  };
};

/** Volts and amps of the charge under the names that the file has for them. */
function expectCharge(bytes: Uint8Array, volts: string, amps: string, answers: Answers = {}): void {
  const { asked, summary, importer } = read(bytes, answers);
  expect([importer, asked]).toEqual(['meter', []]);
  expect(summary!.durationS).toBeCloseTo(11.9, 6);
  const column = (name: string) => summary!.columns.find((c) => c.name === name)!;
  expect(column(volts)).toMatchObject({ unit: 'V', first: 5.02, max: 14.87, count: 120 });
  expect(column(amps).unit).toBe('A');
  expect(column(amps).first).toBeCloseTo(0.012, 9);
  expect(column(amps).max).toBeCloseTo(0.545, 9);
}

describe('meters', () => {
  test.each<[string, Uint8Array, string, string]>([
    [
      'quoted cells with decimal commas between commas',
      utf8(
        table('"Time","Voltage","Current"', ({ t, v, a }) =>
          comma(`"${t.toFixed(1)}";"${v.toFixed(3)}";"${a.toFixed(4)}"`).replaceAll(';', ','),
        ),
      ),
      'Voltage',
      'Current',
    ],
    [
      'a preamble, a column that counts, energies beside',
      utf8(
        `Instrument,USB meter\nSerial,123456\nStart,2026-03-14 10:00:00\n\n${table('No.,Elapsed,Volt,Amp,mWh,mAh', ({ t, v, a }, i) => `${i + 1},${t.toFixed(1)},${v.toFixed(3)},${a.toFixed(4)},${i},${i}`)}`,
      ),
      'Volt',
      'Amp',
    ],
    [
      'milliseconds since 1970',
      utf8(
        table(
          'ts,vbus,ibus',
          ({ t, v, a }) => `${1_773_532_800_000 + Math.round(t * 1000)},${v.toFixed(3)},${a.toFixed(4)}`,
        ),
      ),
      'vbus',
      'ibus',
    ],
    [
      'micro-units behind underscores',
      utf8(
        table(
          't_us,u_mV,i_uA',
          ({ t, v, a }) => `${Math.round(t * 1e6)},${(v * 1e3).toFixed(0)},${(a * 1e6).toFixed(0)}`,
        ),
      ),
      'u',
      'i',
    ],
    [
      'units in the cells',
      utf8(
        table(
          'Time;Voltage;Current',
          ({ t, v, a }) => `${t.toFixed(1)} s;${v.toFixed(3)} V;${(a * 1000).toFixed(1)} mA`,
        ),
      ),
      'Voltage',
      'Current',
    ],
    [
      'columns set by blanks, the header in a remark',
      utf8(
        table(
          '# time voltage current',
          ({ t, v, a }) => `${t.toFixed(1).padStart(8)} ${v.toFixed(3).padStart(8)} ${a.toFixed(4).padStart(8)}`,
        ),
      ),
      'voltage',
      'current',
    ],
    [
      'Windows-1252 with words in between',
      latin1(
        comma(
          table(
            'Zeit;Spannung in V;Strom in mA;Temperatur in °C',
            ({ t, v, a }) => `${t.toFixed(1)};${v.toFixed(3)};${(a * 1000).toFixed(1)};31.5`,
          ),
        ),
      ),
      'Spannung',
      'Strom',
    ],
    [
      'a shunt’s millivolts beside the bus',
      utf8(
        table(
          'Time(ms),Bus Voltage(V),Shunt Voltage(mV),Current(mA)',
          ({ t, v, a }) => `${Math.round(t * 1000)},${v.toFixed(3)},${(a * 10).toFixed(3)},${(a * 1000).toFixed(1)}`,
        ),
      ),
      'Bus Voltage',
      'Current',
    ],
    [
      'ten rows in each second, over midnight',
      utf8(
        table('timestamp,voltage,current', ({ t, v, a }) => {
          const second = Math.floor(t + 1e-9);
          const clock = second < 6 ? `2026-03-14 23:59:${54 + second}` : `2026-03-15 00:00:0${second - 6}`;
          return `${clock},${v.toFixed(3)},${a.toFixed(4)}`;
        }),
      ),
      'voltage',
      'current',
    ],
  ])('%s', (_, bytes, volts, amps) => expectCharge(bytes, volts, amps));

  test('thousands in groups: the sign is asked, and with the answer it is right', () => {
    const text = table(
      'Time (ms);Voltage (mV);Current (mA)',
      ({ t, v, a }) => `${grouped(t * 1000)};${grouped(v * 1000)};${(a * 1000).toFixed(1)}`,
    );
    expect(read(utf8(text)).asked[0]).toBe('decimal');
    expectCharge(utf8(text), 'Voltage', 'Current', { decimal: 'point' });
  });

  test('two channels: it is asked which is the bus', () => {
    const text = table(
      'Time,CH1 Voltage (V),CH1 Current (A),CH2 Voltage (V),CH2 Current (A)',
      ({ t, v, a }) => `${t.toFixed(1)},${v.toFixed(3)},${a.toFixed(4)},3.301,0.101`,
    );
    expect(read(utf8(text)).asked).toEqual(['voltage', 'current']);
    expectCharge(utf8(text), 'CH1 Voltage', 'CH1 Current', { voltage: 'CH1 Voltage', current: 'CH1 Current' });
  });

  test('a voltmeter alone is no meter of a port, and is refused as what it is', () => {
    const text = table(
      'Index,Time,Value,Unit,Type',
      ({ v }, i) => `${i},10:00:${String(i % 60).padStart(2, '0')},${v.toFixed(3)},V,DC`,
    )
      .split('\n')
      .slice(0, 50);
    expect(read(utf8(text.join('\n')))).toMatchObject({
      importer: 'meter',
      refused: 'Expected a column of volts and one of amps; got Value.',
    });
  });

  test('a day that does not go on with its clock is refused, not read as bytes of a chip', () => {
    const text = table(
      'Date,Time,V,A',
      ({ t, v, a }) =>
        `3/14/2026,${t < 6 ? '11:59:5' : '12:00:0'}${Math.floor(t) % 6} ${t < 6 ? 'PM' : 'AM'},${v.toFixed(3)},${a.toFixed(4)}`,
    );
    expect(read(utf8(text))).toMatchObject({
      importer: 'meter',
      refused: expect.stringMatching(/^Expected times that go on/),
    });
  });
});

describe('thermocouple loggers', () => {
  const RUN = Array.from({ length: 200 }, (_, i) => ({
    i,
    c1: 25 + Math.min(200, Math.max(0, i - 10) * 2),
    c2: 25 + Math.min(150, Math.max(0, i - 14) * 1.5),
  }));
  const rows = (header: string, row: (r: (typeof RUN)[number]) => string): string =>
    `${header}\n${RUN.map(row).join('\n')}\n`;

  test.each<[string, Uint8Array, string]>([
    [
      'kelvin behind a slash',
      utf8(rows('s,T1/K,T2/K', ({ i, c1, c2 }) => `${i},${(c1 + 273.15).toFixed(2)},${(c2 + 273.15).toFixed(2)}`)),
      'T1',
    ],
    [
      'day and time in two columns, a unit behind each probe',
      utf8(
        rows(
          '#,Date,Time,K1,Unit,K2,Unit',
          ({ i, c1, c2 }) =>
            `${i + 1},14.03.2026,10:0${Math.floor(i / 60)}:${String(i % 60).padStart(2, '0')},${c1.toFixed(1)},C,${c2.toFixed(1)},C`,
        ),
      ),
      'K1',
    ],
    [
      'umlauts, milliseconds, semicolons',
      latin1(
        comma(
          rows(
            'Zeit [ms];Fühler 1 [°C];Fühler 2 [°C]',
            ({ i, c1, c2 }) => `${1000 * i};${c1.toFixed(1)};${c2.toFixed(1)}`,
          ),
        ),
      ),
      'Fühler 1',
    ],
    [
      'words of the unit',
      utf8(
        rows(
          'Elapsed (s),Probe 1 (deg F),Probe 2 (deg F)',
          ({ i, c1, c2 }) => `${i},${(c1 * 1.8 + 32).toFixed(1)},${(c2 * 1.8 + 32).toFixed(1)}`,
        ),
      ),
      'Probe 1',
    ],
  ])('%s', (_, bytes, probe) => {
    const { importer, asked, summary } = read(bytes);
    expect([importer, asked]).toEqual(['thermocouple', []]);
    expect(summary!.durationS).toBeCloseTo(199, 6);
    const column = summary!.columns.find((c) => c.name === probe)!;
    expect(column.unit).toBe('°C');
    expect(column.first).toBeCloseTo(25, 1);
    expect(column.max).toBeCloseTo(225, 1);
  });
});

describe('analysers', () => {
  const packets = conversation({ trouble: 'none', offers: OFFERS_65W, want: 3, wantMa: 2000 });
  const CAPTURE = captureCsv(edgesOf(packets, { seed: 1 }), 'CC1', 24e6)
    .trimEnd()
    .split('\n')
    .slice(1)
    .map((line) => line.split(','));
  const said = (text: string): string[] => {
    const outcome = readCapture(utf8(text));
    if (outcome.kind === 'refused') throw new Error(outcome.problems[0].message);
    return messageWords(outcome.value?.packets ?? []);
  };
  const PLAIN = said(`Time [s],CC1,CC2\n${CAPTURE.map((r) => r.join(',')).join('\n')}`);
  const volts = (level: string): string => (level === '1' ? '1.13' : '0.02');

  test.each<[string, string]>([
    [
      'a count and microseconds',
      `Sample,Time (us),CC1,CC2\n${CAPTURE.map(([t, a, b], i) => `${i},${(Number(t) * 1e6).toFixed(3)},${a},${b}`).join('\n')}`,
    ],
    ['one channel', `Time[s],Channel 0\n${CAPTURE.map(([t, a]) => `${t},${a}`).join('\n')}`],
    [
      'the head of a scope',
      `Model,Scope\nRecord Length,5000\nSource,CH1,CH2\nSecond,Volt,Volt\n${CAPTURE.map(([t, a]) => `${t},${volts(a)},0.01`).join('\n')}`,
    ],
    [
      'letters for levels, decimal commas, no unit',
      `time;cc1;cc2\n${CAPTURE.map(([t, a]) => `${comma(t)};${a === '1' ? 'H' : 'L'};L`).join('\n')}`,
    ],
    [
      'whole nanoseconds',
      `timestamp_ns,ch0,ch1\n${CAPTURE.map(([t, a, b]) => `${Math.round(Number(t) * 1e9)},${a},${b}`).join('\n')}`,
    ],
    [
      'units in brackets in a row of their own',
      `Time,Channel A,Channel B\n(ms),(mV),(mV)\n\n${CAPTURE.map(([t, a]) => `${(Number(t) * 1e3).toFixed(7)},${(Number(volts(a)) * 1000).toFixed(0)},10`).join('\n')}`,
    ],
    [
      'times that begin before the trigger',
      `Time [s],CC1,CC2\n${CAPTURE.map(([t, a, b]) => `${(Number(t) - 0.05).toFixed(9)},${a},${b}`).join('\n')}`,
    ],
  ])('%s', (_, text) => expect(said(text)).toEqual(PLAIN));

  test('four channels without names are asked, one answer after the other', () => {
    const text = `Time [s],D0,D1,D2,D3\n${CAPTURE.map(([t, a, b]) => `${t},${a},${b},0,1`).join('\n')}`;
    const ask = (answers: Answers) => read(utf8(text), answers).asked;
    expect(ask({})).toEqual(['cc1', 'cc2']);
    expect(ask({ cc1: 'D0' })).toEqual(['cc2']);
    const { outcome } = importFile({ name: 'a.csv', bytes: utf8(text) }, { cc1: 'D0', cc2: 'D1' });
    expect(outcome.kind === 'understood' && (outcome.summary as CaptureSummary).lines.map((l) => l.role)).toEqual([
      'CC1',
      'CC2',
      null,
      null,
    ]);
  });
});

describe('lists of parts', () => {
  test('a bill of material: designators in one cell, ranges, counts that agree', () => {
    const { importer, outcome } = importFile({
      name: 'bom.csv',
      bytes: utf8('Designator;Value;Quantity\n"R1, R2";10k;2\nC1-C3;100n;3\n'),
    });
    expect(importer).toBe('bill-of-material');
    expect(outcome).toMatchObject({ summary: { parts: 5, values: 5 } });
    const off = importFile({ name: 'bom.csv', bytes: utf8('Designator;Value;Quantity\n"R1, R2";10k;3\n') });
    expect(off.outcome).toMatchObject({
      problems: [{ at: 'line 2', message: 'expected as many designators as the count, 3; got 2.' }],
    });
  });

  test('a list of places without a unit whose board would be a speck in millimetres is asked', () => {
    const places = (scale: number): Uint8Array =>
      utf8(
        `Ref,Val,PosX,PosY,Rot,Side\n${[1, 2, 3, 4].map((n) => `R${n},1k,${n * scale},${2 * n * scale},0,top`).join('\n')}`,
      );
    expect(read(places(10)).asked).toEqual([]);
    expect(read(places(0.4)).asked).toEqual(['units']);
    expect(read(places(0.4), { units: 'inch' }).asked).toEqual([]);
  });
});

describe('lists of places', () => {
  const list = (more: readonly string[], above = ''): Uint8Array =>
    utf8(
      `${above}Ref,Val,PosX,PosY,Rot,Side\n${[10, 20, 30, 40].map((x, i) => `R${i},1k,${x},${x / 2},0,top`).join('\n')}\n${more.join('\n')}\n`,
    );

  test('the unit in a remark counts', () => {
    const { asked, summary } = read(list([], '### Unit = inches, Angle = deg.\n'));
    expect([asked, summary]).toMatchObject([[], { unit: 'inch' }]);
  });

  test('a back whose x is counted from behind is asked, and turned over where it is so', () => {
    const bytes = list(['C1,1u,-15,5,0,bottom', 'C2,1u,-35,5,0,bottom']);
    expect(read(bytes).asked).toEqual(['backX']);
    const turned = importFile({ name: 'pos.csv', bytes }, { backX: 'counted from behind' }).outcome;
    expect(turned).toMatchObject({ summary: { width: 30 }, value: { placements: { 4: { x: 15 }, 5: { x: 35 } } } });
    expect(read(bytes, { backX: 'as it stands' }).summary).toMatchObject({ width: 75 });
    // One part that hangs over the edge of the front says nothing of the back.
    expect(read(list(['C1,1u,15,5,0,bottom', 'C2,1u,-35,5,0,bottom'])).asked).toEqual([]);
  });

  test('a part twice at one place is one; at two places the list is of several boards', () => {
    expect(read(list(['R0,1k,10,5,0,top'])).summary).toMatchObject({ parts: 4 });
    expect(read(list(['R0,1k,60,5,0,top'])).refused).toBe(
      'Expected each part once; got R0 at 10, 5 and at 60, 5: a list of several boards is taken apart first.',
    );
  });
});

test('a blank chip is no text, and said to be blank', () => {
  const { outcome } = importFile({ name: 'read.bin', bytes: new Uint8Array(4096).fill(0xff) });
  expect(outcome).toMatchObject({
    kind: 'understood',
    questions: [],
    notes: [expect.stringMatching(/Every byte is FF/)],
  });
});

test('a file of nothing, one of an unknown importer and one that is too torn are refused in a sentence', () => {
  expect(importFile({ name: 'x', bytes: new Uint8Array() }).outcome).toMatchObject({ kind: 'refused' });
  expect(importFile({ name: 'x', bytes: utf8('a') }, {}, 'nonsense').outcome).toMatchObject({
    problems: [{ message: expect.stringMatching(/^Expected one of meter, .*; got "nonsense"\.$/) }],
  });
});
