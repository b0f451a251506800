import { strToU8, zipSync } from 'fflate';
import { CaptureReader, type Answers } from '..';
import type { Random } from '../../math';
import { conversation, edgesOf, OFFERS_65W, messageWords, readPacket, TROUBLES, type CcLine } from '../../usb';

/** A capture of a known conversation in a random style. */
export interface WrittenCapture {
  readonly name: string;
  readonly bytes: Uint8Array;
  readonly line: CcLine;
  /** What was said, message by message. */
  readonly said: readonly string[];
  readonly answers: Answers;
  readonly style: string;
}

const pick = <T>(random: Random, list: readonly T[]): T => list[Math.floor(random() * list.length)];
/** Silence between messages is cut to this: samples of a whole second would be megabytes. */
const GAP_S = 2e-4;
const RUN_ON_S = 2e-4;

interface Line {
  readonly edges: readonly number[];
  readonly endS: number;
}

/** Edges with long silences cut short. */
function compact(edges: readonly number[]): Line {
  let cut = (edges[0] ?? 0) - GAP_S;
  const out = edges.map((edge, i) => {
    if (i > 0 && edge - edges[i - 1] > GAP_S) cut += edge - edges[i - 1] - GAP_S;
    return edge - cut;
  });
  return { edges: out, endS: (out[out.length - 1] ?? 0) + RUN_ON_S };
}

const levelAt = (line: Line): ((atS: number) => number) => {
  let next = 0;
  let level = 0;
  return (atS) => {
    while (next < line.edges.length && line.edges[next] <= atS) {
      next++;
      level ^= 1;
    }
    return level;
  };
};

type Names = readonly string[];
/** Channels: the two CC lines first, then others. */
const CHANNELS: readonly Names[] = [
  ['CC1', 'CC2'],
  ['CC1', 'CC2'],
  ['cc_1', 'cc_2'],
  ['USB CC1', 'USB CC2'],
  ['Channel 0', 'Channel 1'],
  ['channel 1', 'channel 2'],
  ['A', 'B'],
  ['D0', 'D1'],
  ['CC1', 'CC2', 'VBUS_OK', 'INT'],
  ['CC1', 'CC2', 'clock', 'data'],
  ['D0', 'D1', 'D2', 'D3'],
];
const CLOCK = '(UTC)';
const TIME_UNITS: readonly (readonly [string, number, number])[] = [
  ['[s]', 1, 10],
  ['(s)', 1, 10],
  ['[ms]', 1e3, 7],
  ['(us)', 1e6, 4],
  ['[ns]', 1e9, 1],
  ['', 1, 10],
  ['', 1e6, 4],
  [CLOCK, 1, 9],
];

/** A day with its clock, ten milliseconds before midnight at first. */
function clockAt(atS: number, places: number): string {
  const seconds = 86_399.99 + atS;
  const [day, rest] = [13 + Math.floor(seconds / 86_400), seconds % 86_400];
  const two = (figure: number): string => String(Math.floor(figure)).padStart(2, '0');
  return `2026-03-${day} ${two(rest / 3600)}:${two((rest % 3600) / 60)}:${(rest % 60).toFixed(places).padStart(places + 3, '0')}`;
}

export function randomCapture(random: Random): WrittenCapture {
  const trouble = pick(
    random,
    TROUBLES.filter((t) => t !== 'noRd'),
  );
  const packets = conversation({ trouble, offers: OFFERS_65W, want: 3, wantMa: 2000 });
  const line = compact(
    edgesOf(packets, { seed: Math.floor(random() * 1e6), jitterS: 4e-8, clockError: 0.03 * (random() - 0.5) }),
  );
  const talking = pick(random, ['CC1', 'CC2'] as const);
  const names = pick(random, CHANNELS);
  const at = talking === 'CC1' ? 0 : 1;
  const levels = (level: number): number[] => names.map((_, i) => (i === at ? level : i === 3 ? 1 : 0));
  const kind = pick(random, ['transitions', 'samples', 'rate', 'volts', 'dump', 'archive'] as const);
  const said = messageWords(
    packets.map((p) =>
      p.bytes.length
        ? readPacket(p.atS, p.set, p.bytes, !p.corrupt)
        : { atS: p.atS, set: p.set, objects: [], intact: true },
    ),
  );
  const base = { line: talking, said: trouble === 'noisy' ? [] : said };
  const answers: Record<string, string> = { cc1: names[0], cc2: names[1], unit: 's' };
  const text = (written: string, name: string, style: string, more: Record<string, string> = {}): WrittenCapture => ({
    ...base,
    name,
    bytes: strToU8(written),
    answers: { ...answers, ...more },
    style: `${kind} ${style} ${names.join(' ')}\n${written.slice(0, 200)}`,
  });
  if (kind === 'dump') {
    const written = dumpOf(random, line, names, at);
    const isBus = written.includes(' bb lines ');
    return text(written, 'capture.vcd', '', isBus ? { cc1: 'lines[0]', cc2: 'lines[1]' } : {});
  }
  if (kind === 'archive')
    return {
      ...base,
      name: 'capture.sr',
      bytes: archiveOf(random, line, names, at),
      answers,
      style: `archive ${names.join(' ')}`,
    };
  const separator = pick(random, [',', ';', '\t', ', '] as const);
  const newline = pick(random, ['\n', '\r\n']);
  const [unit, scale, places] = pick(random, TIME_UNITS);
  const rateHz = pick(random, [4e6, 10e6, 24e6]);
  const preamble = random() < 0.3 ? ['# logic analyser export', '# day 3'] : [];
  const row = (cells: readonly (string | number)[]): string => cells.join(separator);
  const timeName = pick(random, ['Time', 'time', 'Timestamp']);
  const rows: string[] = [...preamble];
  const quiet = random() * 0.02;
  const volts = (level: number): string => ((level ? 1.14 : 0.02) + (random() - 0.5) * 0.03 + quiet).toFixed(3);
  const milli = random() < 0.3;
  const analog = (list: readonly number[]): string[] =>
    list.map((l) => (milli ? (Number(volts(l)) * 1000).toFixed(0) : volts(l)));
  const unitOfVolts = milli ? 'mV' : 'V';
  const header = kind === 'volts' ? names.map((n) => `${n} (${unitOfVolts})`) : names;
  if (kind === 'rate') {
    const stated = random() < 0.9;
    if (stated) rows.push(`; Samplerate: ${rateHz / 1e6} MHz`);
    rows.push(row(names));
    const level = levelAt(line);
    for (let tick = 0; tick < line.endS * rateHz; tick++) rows.push(row(levels(level(tick / rateHz))));
    return text(rows.join(newline), 'capture.csv', stated ? 'stated' : 'not stated', { rate: `${rateHz / 1e6} MHz` });
  }
  rows.push(row([`${timeName} ${unit}`.trim(), ...header]));
  const stamp = (atS: number): string => {
    if (unit === CLOCK) return clockAt(atS, places);
    const value = atS * scale;
    return random() < 0.05 && unit === '[s]' ? value.toExponential(9) : value.toFixed(places);
  };
  const cells = (level: number): (string | number)[] => (kind === 'volts' ? analog(levels(level)) : levels(level));
  if (kind === 'samples') {
    const level = levelAt(line);
    for (let tick = 0; tick < line.endS * rateHz; tick++)
      rows.push(row([stamp(tick / rateHz), ...cells(level(tick / rateHz))]));
  } else {
    let level = 0;
    rows.push(row([stamp(0), ...cells(0)]));
    for (const edge of line.edges) {
      level ^= 1;
      rows.push(row([stamp(Math.ceil(edge * rateHz) / rateHz), ...cells(level)]));
    }
    rows.push(row([stamp(line.endS), ...cells(level)]));
  }
  const right = { 1: 's', 1e3: 'ms', 1e6: 'µs', 1e9: 'ns' }[scale]!;
  return text(rows.join(newline), 'capture.csv', `${unit} ${unitOfVolts}`, { unit: right });
}

/** A value change dump in one of the layouts that the standard allows. */
function dumpOf(random: Random, line: Line, names: Names, at: number): string {
  const [scale, unitS] = pick(random, [
    ['1 ns', 1e-9],
    ['10ns', 1e-8],
    ['100 ps', 1e-10],
    ['1\n  ns', 1e-9],
  ] as const);
  const bus = random() < (names.length === 2 ? 0.3 : 0.1);
  const sameLine = random() < 0.4;
  const long = random() < 0.3;
  const ids = names.map((_, i) => (long ? `id${i}` : String.fromCharCode(33 + i)));
  const vars = bus
    ? [`$var reg ${names.length} bb lines [${names.length - 1}:0] $end`]
    : names.map((n, i) => `$var wire 1 ${ids[i]} ${n.replace(' ', '_')} $end`);
  const out = [
    '$date today $end',
    '$comment written for a check $end',
    `$timescale ${scale} $end`,
    '$scope module top $end',
    ...(random() < 0.5 ? ['$scope module port $end', ...vars, '$upscope $end'] : vars),
    '$upscope $end',
    '$enddefinitions $end',
  ];
  let level = 0;
  const change = (): string => {
    if (!bus) return `${level}${ids[at]}`;
    const bits = names
      .map((_, i) => (i === at ? level : i === 3 ? 1 : 0))
      .reverse()
      .join('');
    return `b${bits.replace(/^0+(?=.)/, '')} bb`;
  };
  const first = bus ? [change()] : names.map((_, i) => `${i === 3 ? 1 : 0}${ids[i]}`);
  out.push('#0', '$dumpvars', ...(random() < 0.3 && !bus ? names.map((_, i) => `x${ids[i]}`) : []), ...first, '$end');
  for (const edge of line.edges) {
    level ^= 1;
    const time = `#${Math.round(edge / unitS)}`;
    if (sameLine) out.push(`${time} ${change()}`);
    else out.push(time, change());
  }
  out.push(`#${Math.round(line.endS / unitS)}`);
  return `${out.join('\n')}\n`;
}

function archiveOf(random: Random, line: Line, names: Names, at: number): Uint8Array {
  const rateMHz = pick(random, [4, 8, 24]);
  const unitBytes = pick(random, [1, 1, 2]);
  const samples = Math.ceil(line.endS * rateMHz * 1e6);
  const data = new Uint8Array(samples * unitBytes);
  const level = levelAt(line);
  for (let i = 0; i < samples; i++) {
    const bits = (level(i / (rateMHz * 1e6)) << at) | (names.length > 3 ? 8 : 0);
    data[i * unitBytes] = bits;
  }
  const metadata = [
    '[global]',
    'version=1',
    '[device 1]',
    'capturefile=logic-1',
    `total probes=${names.length}`,
    `samplerate=${rateMHz} MHz`,
    ...names.map((n, i) => `probe${i + 1}=${n}`),
    `unitsize=${unitBytes}`,
  ].join('\n');
  const pieces: Record<string, Uint8Array> = {};
  const size = Math.ceil(data.length / 3 / unitBytes) * unitBytes;
  if (random() < 0.5) pieces['logic-1-1'] = data;
  else
    for (let k = 0; k * size < data.length; k++) pieces[`logic-1-${k + 1}`] = data.subarray(k * size, (k + 1) * size);
  return zipSync({ version: strToU8('2'), metadata: strToU8(metadata), ...pieces });
}

/** Reads a capture back, answers what is asked, and says what is wrong. */
export function captureOff(file: WrittenCapture): { readonly off?: string; readonly asked: readonly string[] } {
  const answers: Record<string, string> = {};
  const asked: string[] = [];
  for (let round = 0; round < 6; round++) {
    const reader = new CaptureReader(file.name, answers);
    for (let from = 0; from < file.bytes.length; from += 50_001) reader.push(file.bytes.subarray(from, from + 50_001));
    const outcome = reader.finish();
    if (outcome.kind === 'refused') return { off: `refused: ${outcome.problems[0].message}`, asked };
    const [question] = outcome.questions;
    if (question) {
      asked.push(question.id);
      answers[question.id] = file.answers[question.id] ?? '';
      continue;
    }
    const { line, packets } = outcome.value!;
    if (line !== file.line) return { off: `line ${line} in the place of ${file.line}`, asked };
    if (file.said.length === 0) return { asked };
    const got = messageWords(packets);
    return got.join('\n') === file.said.join('\n')
      ? { asked }
      : { off: `said ${got.length} of ${file.said.length}: ${got[0]}`, asked };
  }
  return { off: `more than 6 questions: ${asked.join(', ')}`, asked };
}
