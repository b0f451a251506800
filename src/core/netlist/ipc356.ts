import { failAll, ok, type Problem, type Result } from '../result';

/**
 * Test records of IPC-D-356A (netlist in fixed columns). Columns and units from memory of the published standard; the
 * writer below and the reader are each other's test.
 */
export interface TestRecord {
  readonly net: string;
  /** Reference designator; empty for vias. */
  readonly ref: string;
  readonly pin: string;
  readonly xMm: number;
  readonly yMm: number;
  readonly side: 'front' | 'back' | 'both';
  readonly wMm: number;
  readonly hMm: number;
  readonly rotationDeg: number;
  /** Drilled hole, mm; none for a surface pad. */
  readonly holeMm?: number;
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
/** Length of one count of a coordinate or feature, mm, by the number after `P  UNITS CUST`. */
const UNIT_MM: Readonly<Record<string, number>> = { '0': 1e-4 * INCH_MM, '1': 1e-3, '2': 1e-4 * INCH_MM };
const THROUGH_HOLE = '317';
const SURFACE = '327';
const MOST_PROBLEMS = 20;
const MOST_RECORDS = 200_000;

const cut = (line: string, column: Column): string => line.slice(COLUMNS[column][0] - 1, COLUMNS[column][1]).trim();

/** Reads the test records of a file; malformed ones are named by line, and then nothing is taken. */
export function parseIpc356(text: string): Result<TestRecord[]> {
  const records: TestRecord[] = [];
  const problems: Problem[] = [];
  let unitMm = UNIT_MM['0'];
  const lines = text.split(/\r?\n/);
  for (let i = 0; i < lines.length && problems.length < MOST_PROBLEMS; i++) {
    const line = lines[i];
    const code = line.slice(0, 3);
    if (code === '999') break;
    if (line.startsWith('P')) {
      const units = /^P\s+UNITS\s+CUST\s+(\S+)/i.exec(line);
      if (!units) continue;
      if (UNIT_MM[units[1]] === undefined)
        problems.push({ at: `line ${i + 1}`, message: `expected units CUST 0, 1 or 2; got "${units[1]}".` });
      else unitMm = UNIT_MM[units[1]];
      continue;
    }
    if (code !== THROUGH_HOLE && code !== SURFACE) {
      if (/^3\d\d/.test(code) || /^[C0\s]/.test(line) || line === '') continue;
      problems.push({ at: `line ${i + 1}`, message: `expected a record of IPC-D-356; got "${line.slice(0, 40)}".` });
      continue;
    }
    const record = readRecord(line, code, unitMm);
    if (typeof record === 'string') problems.push({ at: `line ${i + 1}`, message: record });
    else records.push(record);
  }
  if (records.length > MOST_RECORDS)
    problems.push({ message: `Expected at most ${MOST_RECORDS} test records; got ${records.length}.` });
  if (problems.length === 0 && records.length === 0)
    problems.push({ message: 'Expected test records (317 or 327) of an IPC-D-356 file; got none.' });
  return problems.length > 0 ? failAll(problems) : ok(records);
}

/** One record, or what is wrong with it. */
function readRecord(line: string, code: string, unitMm: number): TestRecord | string {
  const net = cut(line, 'net');
  if (net === '') return 'expected a net name in columns 4 to 17; got none.';
  const [x, y] = [figure(line, 'x'), figure(line, 'y')];
  if (x === undefined || y === undefined)
    return `expected coordinates X in columns 43 to 49 and Y in 51 to 57; got "${cut(line, 'x')}" and "${cut(line, 'y')}".`;
  const access = cut(line, 'access');
  if (!/^A0[0-9]$/.test(access)) return `expected access A00 to A09 in columns 39 to 41; got "${access}".`;
  const [width, height] = [figure(line, 'width') ?? 0, figure(line, 'height') ?? 0];
  const hole = figure(line, 'hole');
  return {
    net,
    ref: cut(line, 'ref') === 'VIA' ? '' : cut(line, 'ref'),
    pin: cut(line, 'pin'),
    xMm: x * unitMm,
    yMm: y * unitMm,
    side: access === 'A00' ? 'both' : access === 'A01' ? 'front' : 'back',
    wMm: width * unitMm,
    // A feature with a width alone is round.
    hMm: (height === 0 ? width : height) * unitMm,
    rotationDeg: figure(line, 'rotation') ?? 0,
    holeMm: code === THROUGH_HOLE && hole !== undefined ? hole * unitMm : undefined,
  };
}

/** A signed figure in a column; undefined where there is none. */
function figure(line: string, column: Column): number | undefined {
  const text = cut(line, column);
  return /^[+-]?\d+$/.test(text) ? Number(text) : undefined;
}

/** Writes records in micrometres (CUST 1), the way {@link parseIpc356} reads them. Names longer than their columns are cut. */
export function writeIpc356(records: readonly TestRecord[]): string {
  const lines = records.map((r) => {
    const columns = new Array<string>(80).fill(' ');
    const put = (from: number, text: string): void => {
      for (let i = 0; i < text.length; i++) columns[from - 1 + i] = text[i];
    };
    const um = (mm: number): number => Math.round(mm * 1000);
    const signed = (mm: number): string => `${mm < 0 ? '-' : '+'}${String(Math.abs(um(mm))).padStart(6, '0')}`;
    put(1, r.holeMm === undefined ? SURFACE : THROUGH_HOLE);
    put(4, r.net.slice(0, 14));
    put(21, (r.ref || 'VIA').slice(0, 6));
    if (r.pin) put(27, `-${r.pin.slice(0, 4)}`);
    if (r.holeMm !== undefined) put(33, `D${String(um(r.holeMm)).padStart(4, '0')}P`);
    put(39, r.side === 'both' ? 'A00' : r.side === 'front' ? 'A01' : 'A02');
    put(42, `X${signed(r.xMm)}Y${signed(r.yMm)}`);
    put(
      58,
      `X${String(Math.min(9999, um(r.wMm))).padStart(4, '0')}Y${String(Math.min(9999, um(r.hMm))).padStart(4, '0')}`,
    );
    put(68, `R${String(Math.round(r.rotationDeg) % 360).padStart(3, '0')}`);
    return columns.join('').trimEnd();
  });
  return `P  UNITS CUST 1\n${lines.join('\n')}\n999\n`;
}
