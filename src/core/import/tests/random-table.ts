import type { Random } from '../../math';

/** A table of known samples, written in a random style. */
export interface WrittenTable {
  readonly name: string;
  readonly bytes: Uint8Array;
  /** The samples as they are: seconds from the first, and one list per column in base units; NaN where a sample is missing. */
  readonly seconds: readonly number[];
  readonly columns: readonly { readonly role: string; readonly values: readonly number[] }[];
  /** Right answers, by the beginning of the question's id. */
  readonly answers: Readonly<Record<string, string>>;
  readonly style: string;
}

interface Column {
  readonly role: string;
  /** Name without its unit. */
  readonly name: string;
  readonly unit: string;
  readonly write: (i: number) => string;
  readonly values: readonly number[];
}

const pick = <T>(random: Random, list: readonly T[]): T => list[Math.floor(random() * list.length)];
const chance = (random: Random, p: number): boolean => random() < p;

const SEPARATORS = [',', ';', '\t', '|'] as const;
const MISSING = ['---', '', 'N/A', '--', 'NaN'] as const;
const OVER = ['OL', 'O.L', '9.9E+37'] as const;

type HeaderStyle = 'brackets' | 'square' | 'underscore' | 'row' | 'cells' | 'slash' | 'none';
const HEADERS: readonly HeaderStyle[] = ['brackets', 'square', 'underscore', 'row', 'cells', 'slash', 'none'];

/** Where decimals go, and how figures are told apart from the separator. */
interface Style {
  readonly separator: string;
  readonly decimal: ',' | '.';
  readonly header: HeaderStyle;
  readonly quoted: boolean;
  readonly newline: string;
  readonly encoding: 'utf-8' | 'utf-8 with mark' | 'utf-16le' | 'utf-16be' | 'windows-1252';
  readonly preamble: number;
}

function styleOf(random: Random): Style {
  const separator = pick(random, SEPARATORS);
  const decimal = chance(random, 0.4) ? ',' : '.';
  return {
    separator,
    decimal,
    header: pick(random, HEADERS),
    quoted: (separator === ',' && decimal === ',') || chance(random, 0.15),
    newline: chance(random, 0.4) ? '\r\n' : '\n',
    encoding: pick(random, ['utf-8', 'utf-8', 'utf-8 with mark', 'utf-16le', 'utf-16be', 'windows-1252']),
    preamble: chance(random, 0.3) ? 1 + Math.floor(random() * 4) : 0,
  };
}

type TimeForm =
  | 's'
  | 'ms'
  | 'µs'
  | 'min'
  | 'epoch s'
  | 'epoch ms'
  | 'hh:mm:ss'
  | 'hh:mm:ss.sss'
  | 'mm:ss.s'
  | 'am-pm'
  | 'iso'
  | 'iso zone'
  | 'iso space'
  | 'day first'
  | 'month first'
  | 'dotted'
  | 'date and time';
const TIME_FORMS: readonly TimeForm[] = [
  's',
  's',
  's',
  'ms',
  'µs',
  'min',
  'epoch s',
  'epoch ms',
  'hh:mm:ss',
  'hh:mm:ss.sss',
  'mm:ss.s',
  'am-pm',
  'iso',
  'iso zone',
  'iso space',
  'day first',
  'month first',
  'dotted',
  'date and time',
];
const two = (v: number): string => String(Math.floor(v)).padStart(2, '0');

/** Written times: seconds of a day at which the record begins, and what each sample's text is. */
function timesOf(random: Random, form: TimeForm, style: Style, seconds: readonly number[]): Column[] {
  // Some records go over midnight.
  const start = chance(random, 0.3) ? 86_400 - seconds[seconds.length - 1] / 2 : 3600 + Math.floor(random() * 70_000);
  const begun = Math.round(start);
  const day = Date.UTC(2026, Math.floor(random() * 12), 1 + Math.floor(random() * 27));
  const moment = (i: number): Date => new Date(day + Math.round(1000 * (begun + seconds[i])));
  const clock = (i: number, places: number): string => {
    const d = moment(i);
    const fraction =
      places === 0
        ? ''
        : `${style.decimal === ',' ? ',' : '.'}${String(d.getUTCMilliseconds()).padStart(3, '0').slice(0, places)}`;
    return `${two(d.getUTCHours())}:${two(d.getUTCMinutes())}:${two(d.getUTCSeconds())}${fraction}`;
  };
  const column = (name: string, unit: string, write: (i: number) => string): Column => ({
    role: 'time',
    name,
    unit,
    write,
    values: seconds,
  });
  const figure = (v: number, places: number): string => v.toFixed(places).replace('.', style.decimal);
  const named = pick(random, ['Time', 'Zeit', 'Elapsed', 'Timestamp', 't']);
  const named2 = pick(random, ['Time', 'Timestamp', 'DateTime', 'Datum']);
  switch (form) {
    case 's':
      return [column(named, 's', (i) => figure(seconds[i], 3))];
    case 'ms':
      return [column(named, 'ms', (i) => figure(seconds[i] * 1e3, 0))];
    case 'µs':
      return [column(named, chance(random, 0.5) ? 'us' : 'µs', (i) => figure(seconds[i] * 1e6, 0))];
    case 'min':
      return [column(named, 'min', (i) => figure(seconds[i] / 60, 6))];
    case 'epoch s':
      return [column(named2, 's', (i) => figure(day / 1000 + begun + seconds[i], 3))];
    case 'epoch ms':
      return [column(named2, 'ms', (i) => figure(day + 1000 * (begun + seconds[i]), 0))];
    case 'hh:mm:ss':
      return [column(named, '', (i) => clock(i, 0))];
    case 'hh:mm:ss.sss':
      return [column(named, '', (i) => clock(i, 3))];
    case 'mm:ss.s':
      return [
        column(
          named,
          '',
          (i) =>
            `${two(seconds[i] / 60)}:${two(seconds[i] % 60)}${style.decimal}${Math.round((seconds[i] * 10) % 10) % 10}`,
        ),
      ];
    case 'am-pm':
      return [
        column(named, '', (i) => {
          const d = moment(i);
          const hour = d.getUTCHours();
          return `${hour % 12 || 12}:${two(d.getUTCMinutes())}:${two(d.getUTCSeconds())} ${hour < 12 ? 'AM' : 'PM'}`;
        }),
      ];
    case 'iso':
      return [column(named2, '', (i) => moment(i).toISOString())];
    case 'iso zone':
      return [column(named2, '', (i) => moment(i).toISOString().replace('Z', '+02:00'))];
    case 'iso space':
      return [column(named2, '', (i) => moment(i).toISOString().replace('T', ' ').replace('Z', ''))];
    case 'day first':
    case 'month first':
      return [
        column(named2, '', (i) => {
          const d = moment(i);
          const [a, b] =
            form === 'day first' ? [d.getUTCDate(), d.getUTCMonth() + 1] : [d.getUTCMonth() + 1, d.getUTCDate()];
          return `${two(a)}/${two(b)}/${d.getUTCFullYear()} ${clock(i, 3)}`;
        }),
      ];
    case 'dotted':
      return [
        column(named2, '', (i) => {
          const d = moment(i);
          return `${two(d.getUTCDate())}.${two(d.getUTCMonth() + 1)}.${d.getUTCFullYear()} ${clock(i, 3)}`;
        }),
      ];
    case 'date and time':
      return [column('Date', '', (i) => moment(i).toISOString().slice(0, 10)), column('Time', '', (i) => clock(i, 3))];
  }
}

/** Steps at which a form of time still tells the samples apart. */
const stepFor = (random: Random, form: TimeForm): number => {
  const whole = form === 'hh:mm:ss' || form === 'am-pm';
  if (whole) return pick(random, [0.1, 0.2, 0.5, 1, 1, 2]);
  return form === 'mm:ss.s' ? pick(random, [0.1, 0.5, 1]) : pick(random, [0.05, 0.1, 0.2, 0.25, 0.5, 1, 2]);
};

const SCALES: Readonly<Record<string, number>> = { V: 1, mV: 1e3, A: 1, mA: 1e3, '°C': 1, W: 1, mW: 1e3 };

function valued(
  role: string,
  name: string,
  unit: string,
  values: readonly number[],
  places: number,
  style: Style,
  gaps: ReadonlyMap<number, string>,
): Column {
  const scaled = (v: number): number => (unit === '°F' ? v * 1.8 + 32 : unit === 'K' ? v + 273.15 : v * SCALES[unit]);
  const kept = values.map((v, i) => (gaps.has(i) ? NaN : v));
  return {
    role,
    name,
    unit,
    values: kept,
    write: (i) => gaps.get(i) ?? scaled(values[i]).toFixed(places).replace('.', style.decimal),
  };
}

function gapsOf(random: Random, rows: number): Map<number, string> {
  const gaps = new Map<number, string>();
  if (!chance(random, 0.2)) return gaps;
  const text = pick(random, chance(random, 0.5) ? MISSING : OVER);
  for (let k = 0; k < 3; k++) gaps.set(1 + Math.floor(random() * (rows - 2)), text);
  return gaps;
}

/** A meter's table: volts and amps of a charge, with columns that are neither. */
export function randomMeterTable(random: Random): WrittenTable {
  const style = styleOf(random);
  const form = pick(random, TIME_FORMS);
  const rows = 30 + Math.floor(random() * 40);
  const step = stepFor(random, form);
  const seconds = Array.from({ length: rows }, (_, i) => Number((i * step).toFixed(6)));
  const level = pick(random, [5.02, 9.04, 14.87, 19.92]);
  const volts = seconds.map((_, i) => Number(((i < 4 ? 5.02 : level) + 0.01 * random()).toFixed(3)));
  const amps = seconds.map((_, i) => Number((i < 4 ? 0.012 : 0.1 + 0.7 * (i / rows) + 0.01 * random()).toFixed(4)));
  const voltUnit = pick(random, ['V', 'V', 'mV']);
  const ampUnit = pick(random, ['A', 'A', 'mA']);
  const columns: Column[] = [
    valued(
      'voltage',
      pick(random, ['Voltage', 'Volt', 'Spannung', 'VBUS', 'U', 'bus voltage']),
      voltUnit,
      volts,
      voltUnit === 'V' ? 3 : 0,
      style,
      gapsOf(random, rows),
    ),
    valued(
      'current',
      pick(random, ['Current', 'Curr', 'Strom', 'IBUS', 'I', 'bus current']),
      ampUnit,
      amps,
      ampUnit === 'A' ? 4 : 1,
      style,
      gapsOf(random, rows),
    ),
  ];
  if (chance(random, 0.4))
    columns.push(
      valued(
        'power',
        pick(random, ['Power', 'Leistung', 'P']),
        'W',
        volts.map((v, i) => v * amps[i]),
        3,
        style,
        new Map(),
      ),
    );
  if (chance(random, 0.2)) {
    columns.push(
      valued(
        'line',
        'D+',
        'V',
        volts.map(() => 0.6),
        2,
        style,
        new Map(),
      ),
    );
    columns.push(
      valued(
        'line',
        'D-',
        'V',
        volts.map(() => 0.59),
        2,
        style,
        new Map(),
      ),
    );
  }
  if (chance(random, 0.15))
    columns.push(
      valued(
        'temperature',
        'Temp',
        '°C',
        volts.map(() => 31.5),
        1,
        style,
        new Map(),
      ),
    );
  const unitless = style.header === 'none';
  return written(random, style, 'meter.csv', form, timesOf(random, form, style, seconds), columns, seconds, {
    'unit:': '',
    ...(unitless && { voltUnit, ampUnit }),
    voltage: columns[0].name,
    current: columns[1].name,
  });
}

/** A logger's table: one to four thermocouples over a profile. */
export function randomThermoTable(random: Random): WrittenTable {
  const style = styleOf(random);
  const form = pick(random, TIME_FORMS);
  const rows = 40 + Math.floor(random() * 40);
  const step = Math.max(0.5, stepFor(random, form));
  const seconds = Array.from({ length: rows }, (_, i) => Number((i * step).toFixed(6)));
  const unit = pick(random, ['°C', '°C', '°F', 'K']);
  const base = pick(random, ['T', 'Temp', 'TC', 'Probe ', 'CH']);
  const count = 1 + Math.floor(random() * 3);
  const columns = Array.from({ length: count }, (_, k) => {
    const top = 120 + 120 * random();
    const values = seconds.map((_s, i) =>
      Number((24.5 + (i < 5 ? 0 : top * (1 - Math.exp(-(i - 5) / 15)))).toFixed(1)),
    );
    return valued(`probe ${k}`, `${base}${k + 1}`, unit, values, 2, style, gapsOf(random, rows));
  });
  return written(random, style, 'log.csv', form, timesOf(random, form, style, seconds), columns, seconds, {
    probeUnit: unit,
  });
}

const PREAMBLE = ['Instrument log', 'Model 3', 'Start: bench 2', 'Operator,none', 'Notes'];

function written(
  random: Random,
  style: Style,
  name: string,
  form: TimeForm,
  times: readonly Column[],
  values: readonly Column[],
  seconds: readonly number[],
  answers: Readonly<Record<string, string>>,
): WrittenTable {
  const index: Column[] = chance(random, 0.2)
    ? [
        {
          role: 'index',
          name: pick(random, ['#', 'No.', 'Index', 'Sample']),
          unit: '',
          write: (i) => String(i + 1),
          values: [],
        },
      ]
    : [];
  const ordered = chance(random, 0.3) ? [...values].reverse() : values;
  const columns = chance(random, 0.8) ? [...index, ...times, ...ordered] : [...index, ...ordered, ...times];
  const cell = (text: string): string => {
    const mustQuote = text.includes(style.separator) || (style.quoted && text !== '');
    return mustQuote ? `"${text}"` : text;
  };
  const headerOf = ({ name: text, unit }: Column): string => {
    const plainUnit = unit === '°C' && chance(random, 0.2) ? 'C' : unit;
    if (unit === '' || style.header === 'none' || style.header === 'row' || style.header === 'cells') return text;
    if (style.header === 'brackets') return `${text} (${plainUnit})`;
    if (style.header === 'square') return `${text}${chance(random, 0.5) ? ' ' : ''}[${plainUnit}]`;
    if (style.header === 'underscore') return `${text.replace(/\s+/g, '_')}_${plainUnit.replace('°', '')}`;
    return `${text}/${plainUnit}`;
  };
  const line = (cells: readonly string[]): string => cells.map(cell).join(style.separator);
  const lines = [
    ...PREAMBLE.slice(0, style.preamble),
    line(columns.map(headerOf)),
    ...(style.header === 'row' ? [line(columns.map((c) => c.unit))] : []),
    ...seconds.map((_, i) =>
      line(
        columns.map((c) => {
          const text = c.write(i);
          return style.header === 'cells' && c.unit !== '' && /\d$/.test(text) && !/E\+37$/.test(text)
            ? `${text} ${c.unit}`
            : text;
        }),
      ),
    ),
  ];
  const text = lines.join(style.newline) + style.newline;
  return {
    name,
    bytes: encoded(text, style.encoding),
    seconds,
    columns: values.map((c) => ({ role: c.role, values: c.values })),
    answers: { ...answers, timeUnit: times[0].unit },
    style: `${style.separator} ${style.decimal} ${style.header} ${style.encoding} ${form}${style.quoted ? ' quoted' : ''}\n${lines.slice(0, style.preamble + 6).join('\n')}`,
  };
}

/** The Latin letters of Windows-1252 that these tables use lie where Unicode has them. */
function encoded(text: string, encoding: Style['encoding']): Uint8Array {
  if (encoding === 'utf-8') return new TextEncoder().encode(text);
  if (encoding === 'utf-8 with mark') return new TextEncoder().encode(`\uFEFF${text}`);
  if (encoding === 'windows-1252') return Uint8Array.from(text, (c) => c.charCodeAt(0));
  const marked = `\uFEFF${text}`;
  const bytes = new Uint8Array(2 * marked.length);
  const view = new DataView(bytes.buffer);
  for (let i = 0; i < marked.length; i++) view.setUint16(2 * i, marked.charCodeAt(i), encoding === 'utf-16le');
  return bytes;
}
