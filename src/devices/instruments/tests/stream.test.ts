import { seededRandom } from '../../../core/math';
import type { StreamDialect } from '../definition';
import { LOGGER_LINES, USB_METER_LINES } from '../dialects';
import { readSample, StreamMeter, StreamRecord } from '../stream';

const dialect = USB_METER_LINES.dialect as StreamDialect;

/** An hour with ten samples each second, as lines. */
function hour(): { readonly lines: string[]; readonly volts: number[] } {
  const random = seededRandom(10);
  const volts = Array.from({ length: 36_000 }, () => Number((5 + 0.1 * random()).toFixed(3)));
  return { volts, lines: volts.map((v, i) => `${(i / 10).toFixed(1)},${v.toFixed(3)},0.480`) };
}

test('an hour at 10 Hz is what its file says, sample by sample, with no gap', () => {
  const { lines, volts } = hour();
  const record = new StreamRecord(dialect);
  lines.forEach((l, i) => record.line(l, i / 10));
  expect(record.gaps).toEqual([]);
  expect(record.volts).toEqual(volts);
  expect(record.timesS.every((t, i) => Math.abs(t - i / 10) < 1e-9)).toBe(true);
});

test('cut and joined twice: every sample that came is there, and both holes are said', () => {
  const { lines } = hour();
  const record = new StreamRecord(dialect);
  lines.forEach((l, i) => {
    if (i === 9000 || i === 20_000) record.cut();
    if ((i >= 9000 && i < 9600) || (i >= 20_000 && i < 20_050)) return;
    record.line(l, i / 10);
  });
  expect(record.timesS).toHaveLength(36_000 - 650);
  expect(record.gaps.map((g) => [g.fromS, g.toS, g.why])).toEqual([
    [899.9, 960, 'lost'],
    [1999.9, 2005, 'lost'],
  ]);
});

test('a meter that restarts begins its own time anew; the clock of the page says how long it was away', () => {
  const record = new StreamRecord(dialect);
  for (let i = 0; i < 100; i++) record.line(`${(i / 10).toFixed(1)},5.0,0.4`, 50 + i / 10);
  for (let i = 0; i < 100; i++) record.line(`${(i / 10).toFixed(1)},5.0,0.4`, 75 + i / 10);
  expect(record.gaps).toEqual([{ fromS: 9.9, toS: 25, why: 'restarted' }]);
  expect(record.timesS.at(-1)).toBeCloseTo(34.9, 9);
});

test('samples that stay out are a gap, half lines and headings are dropped, and nothing else', () => {
  const record = new StreamRecord(dialect);
  record.line('time,volts,amps', 0);
  for (let i = 0; i < 50; i++) if (i < 20 || i > 30) record.line(`${i / 10},5.0,0.4`, i / 10);
  record.line('5.0,5.1', 5);
  expect([record.dropped, record.gaps]).toEqual([2, [{ fromS: 1.9, toS: 3.1, why: 'silent' }]]);
});

test('decimal commas, and a probe that is not plugged in', () => {
  expect(readSample(LOGGER_LINES.dialect as StreamDialect, '12,5; 181,25; OL; 23,0; 22,9')).toEqual({
    timeS: 12.5,
    celsius: [181.25, NaN, 23, 22.9],
  });
  expect(readSample(dialect, '1.0,5,x')).toBeUndefined();
});

test('a meter on a line delivers samples as they come, and says what is missing', () => {
  let heard: ((line: string) => void) | undefined;
  let now = 100;
  const meter = new StreamMeter(
    'Jetty USB',
    dialect,
    (listener) => (heard = listener),
    () => now,
  );
  const got: number[] = [];
  meter.start((s) => got.push(s.volts));
  for (let i = 0; i < 40; i++) {
    now = 100 + i / 10;
    if (i < 20 || i > 32) heard!(`${(i / 10).toFixed(1)},${(5 + i / 100).toFixed(2)},0.4`);
  }
  heard!('4.1,5.');
  expect([got.length, got[0], got.at(-1)]).toEqual([27, 5, 5.39]);
  expect(meter.missing).toBe('Samples are missing from 1.9 to 3.3 s (silent). 1 lines were no sample.');
  meter.stop();
  expect(heard).toBeUndefined();
  meter.start(() => undefined);
  expect(meter.missing).toBeUndefined();
});
