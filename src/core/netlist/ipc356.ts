import type { NetName, PartRef } from '../identities';
import { failAll, ok, type Problem, type Result } from '../result';

/**
 * Test records of IPC-D-356A (netlist in fixed columns). Columns and units from memory of the published standard; files of a
 * general EDA suite, written independently, are its test beside the writer below.
 */
export interface TestRecord {
  /** As it stands in the file; undefined for a pin that is connected to nothing. */
  readonly net?: NetName;
  /** Reference designator; empty for vias. */
  readonly ref: PartRef;
  readonly pin: string;
  readonly xMm: number;
  readonly yMm: number;
  readonly side: 'front' | 'back' | 'both';
  /** Size along the axes of the board where it is turned by quarters. */
  readonly wMm: number;
  readonly hMm: number;
  /** Of the pad, counter-clockwise as the standard counts. */
  readonly rotationDeg: number;
  /** Drilled hole, mm; none for a surface pad. */
  readonly holeMm?: number;
}

/** Test records, and whether the file said in which unit they are. */
export interface TestRecords {
  readonly records: readonly TestRecord[];
  readonly notes: readonly string[];
}

/** Columns, from 1 as the standard counts them: first and last. */
const COLUMNS = {
  net: [4, 17],
  ref: [21, 26],
  pin: [28, 31],
  hole: [34, 37],
  access: [39, 41],
  x: [43, 49],
  y: [51, 57],
  width: [59, 62],
  height: [64, 67],
  rotation: [69, 71],
} as const;
type Column = keyof typeof COLUMNS;

const INCH_MM = 25.4;
/** Units of a file: millimetres to one count of a coordinate, and whether angles are radians. */
export const UNITS_356 = {
  'inch/10000': 1e-4 * INCH_MM,
  'mm/1000': 1e-3,
} as const;
export type Unit356 = keyof typeof UNITS_356;
/** By the number after `P  UNITS CUST`, or the word SI. 2 is inches with angles in radians. */
const UNIT_BY_CODE: Readonly<Record<string, Unit356>> = { '0': 'inch/10000', '1': 'mm/1000', '2': 'inch/10000' };
const THROUGH_HOLE = '317';
const SURFACE = '327';
const MOST_PROBLEMS = 20;
const MOST_RECORDS = 200_000;
/** Names that stand for no net. Common practice of netlist writers, no source. */
const NO_NET = /^(?:N\/?C|NOCONN(?:ECT)?|UNCONNECTED)$/i;

const cut = (line: string, column: Column): string => line.slice(COLUMNS[column][0] - 1, COLUMNS[column][1]).trim();

/** The unit that a file states; undefined where it states none, and a text it states that is none. */
export function unitOf356(text: string): Unit356 | { readonly unknown: string } | undefined {
  const line = /^P\s+UNITS\s+(.*?)\s*$/im.exec(text);
  if (!line) return undefined;
  const code = /^CUST\s+(\S+)$/i.exec(line[1])?.[1];
  if (code !== undefined) return UNIT_BY_CODE[code] ?? { unknown: line[1] };
  if (/^SI$/i.test(line[1])) return 'mm/1000';
  return /^(?:CUST)?$/i.test(line[1]) ? undefined : { unknown: line[1] };
}

/**
 * Reads the test records of a file; malformed ones are named by line, and then nothing is taken.
 * @param given the unit where the file does not say it.
 */
export function parseIpc356(text: string, given?: Unit356): Result<TestRecords> {
  const stated = unitOf356(text);
  if (stated !== undefined && typeof stated !== 'string')
    return failAll([{ message: `Expected units CUST 0, 1 or 2, or SI; got "${stated.unknown}".` }]);
  const unit = stated ?? given;
  if (unit === undefined) return failAll([{ message: 'Expected a line of units such as P  UNITS CUST 0; got none.' }]);
  const radians = /^P\s+UNITS\s+CUST\s+2/im.test(text);
  const records: TestRecord[] = [];
  const problems: Problem[] = [];
  const lines = text.split(/\r\n|\n|\r/);
  const aliases = aliasesIn(lines);
  for (let i = 0; i < lines.length && problems.length < MOST_PROBLEMS; i++) {
    const line = lines[i];
    const code = line.slice(0, 3);
    if (code === '999') break;
    if (code !== THROUGH_HOLE && code !== SURFACE) {
      if (/^3\d\d/.test(code) || /^[CP0\s]/.test(line) || line === '') continue;
      problems.push({ at: `line ${i + 1}`, message: `expected a record of IPC-D-356; got "${line.slice(0, 40)}".` });
      continue;
    }
    const record = readRecord(line, code, UNITS_356[unit], radians, aliases);
    if (typeof record === 'string') problems.push({ at: `line ${i + 1}`, message: record });
    else records.push(record);
    if (records.length > MOST_RECORDS)
      return failAll([{ message: `Expected at most ${MOST_RECORDS} test records; got more.` }]);
  }
  if (problems.length === 0 && records.length === 0)
    problems.push({ message: 'Expected test records (317 or 327) of an IPC-D-356 file; got none.' });
  return problems.length > 0 ? failAll(problems) : ok({ records, notes: cutNotes(records) });
}

/** Long names stand in lines of their own: `P  NNAME1  the long name`, and records name NNAME1. */
function aliasesIn(lines: readonly string[]): Map<string, string> {
  const aliases = new Map<string, string>();
  for (const line of lines) {
    const found = /^P\s+(NNAME\d+)\s+(\S.*?)\s*$/i.exec(line);
    if (found) aliases.set(found[1].toUpperCase(), found[2]);
  }
  return aliases;
}

/** A name that fills its columns may have been cut. */
function cutNotes(records: readonly TestRecord[]): string[] {
  const full = new Set(records.flatMap((r) => (r.net !== undefined && r.net.length === 14 ? [r.net] : [])));
  return full.size > 0
    ? [
        `${full.size} net ${full.size === 1 ? 'name fills' : 'names fill'} the 14 columns and may have been cut: ${[...full].slice(0, 5).join(', ')}.`,
      ]
    : [];
}

/** One record, or what is wrong with it. */
function readRecord(
  line: string,
  code: string,
  unitMm: number,
  radians: boolean,
  aliases: ReadonlyMap<string, string>,
): TestRecord | string {
  const written = cut(line, 'net');
  if (written === '') return 'expected a net name in columns 4 to 17; got none.';
  const [x, y] = [figure(line, 'x'), figure(line, 'y')];
  if (x === undefined || y === undefined)
    return `expected coordinates X in columns 43 to 49 and Y in 51 to 57; got "${cut(line, 'x')}" and "${cut(line, 'y')}".`;
  const access = cut(line, 'access');
  if (!/^A\d\d$/.test(access)) return `expected access A00 to A99 in columns 39 to 41; got "${access}".`;
  const [width, height] = [figure(line, 'width') ?? 0, figure(line, 'height') ?? 0];
  const hole = figure(line, 'hole');
  const angle = figure(line, 'rotation') ?? 0;
  const rotationDeg = radians ? (angle * 180) / Math.PI : angle;
  const ref = cut(line, 'ref');
  // A feature with a width alone is round.
  const size = [width, height === 0 ? width : height].map((v) => v * unitMm);
  const turned = Math.round(rotationDeg / 90) % 2 !== 0;
  const net = aliases.get(written.toUpperCase()) ?? written;
  return {
    net: NO_NET.test(net) ? undefined : net,
    ref: /^VIA$/i.test(ref) ? '' : ref,
    pin: cut(line, 'pin'),
    xMm: x * unitMm,
    yMm: y * unitMm,
    side: access === 'A00' ? 'both' : access === 'A01' ? 'front' : 'back',
    wMm: turned ? size[1] : size[0],
    hMm: turned ? size[0] : size[1],
    rotationDeg,
    holeMm: code === THROUGH_HOLE && hole !== undefined ? hole * unitMm : undefined,
  };
}

/** A signed figure in a column; undefined where there is none. */
function figure(line: string, column: Column): number | undefined {
  const text = cut(line, column);
  return /^[+-]?\d+$/.test(text) ? Number(text) : undefined;
}

const NET_COLUMNS = 14;

/**
 * Writes records in micrometres (CUST 1), the way {@link parseIpc356} reads them: long nets under an alias, pins without a net
 * as N/C. Designators longer than six letters have no place in the format and are refused.
 */
export function writeIpc356(records: readonly TestRecord[]): string {
  const long = [...new Set(records.flatMap((r) => (r.net !== undefined && r.net.length > NET_COLUMNS ? [r.net] : [])))];
  const aliases = new Map(long.map((net, i) => [net, `NNAME${i + 1}`]));
  const lines = records.map((r) => {
    const columns = new Array<string>(80).fill(' ');
    const put = (from: number, text: string): void => {
      for (let i = 0; i < text.length; i++) columns[from - 1 + i] = text[i];
    };
    const um = (mm: number): number => Math.round(mm * 1000);
    const signed = (mm: number): string => `${mm < 0 ? '-' : '+'}${String(Math.abs(um(mm))).padStart(6, '0')}`;
    put(1, r.holeMm === undefined ? SURFACE : THROUGH_HOLE);
    put(4, r.net === undefined ? 'N/C' : (aliases.get(r.net) ?? r.net));
    put(21, (r.ref || 'VIA').slice(0, 6));
    if (r.pin) put(27, `-${r.pin.slice(0, 4)}`);
    if (r.holeMm !== undefined) put(33, `D${String(um(r.holeMm)).padStart(4, '0')}P`);
    put(39, r.side === 'both' ? 'A00' : r.side === 'front' ? 'A01' : 'A02');
    put(42, `X${signed(r.xMm)}Y${signed(r.yMm)}`);
    put(
      58,
      `X${String(Math.min(9999, um(r.wMm))).padStart(4, '0')}Y${String(Math.min(9999, um(r.hMm))).padStart(4, '0')}`,
    );
    put(68, 'R000');
    return columns.join('').trimEnd();
  });
  const head = ['P  UNITS CUST 1', ...[...aliases].map(([net, alias]) => `P  ${alias}  ${net}`)];
  return `${head.join('\n')}\n${lines.join('\n')}\n999\n`;
}
