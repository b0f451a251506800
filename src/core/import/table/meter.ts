import type { Trace } from '../../trace';
import {
  defineImporter,
  MIB,
  refused,
  type Answers,
  type ImportFile,
  type ImportQuestion,
  type Outcome,
} from '../importer';
import { headText, isText } from '../text/encoding';
import { inUnit, isIndexName, mostOf, type Column } from './columns';
import {
  isRefused,
  previewRows,
  peekColumns,
  readSampled,
  signatureOf,
  stepQuestion,
  tableSummary,
  type SampledTable,
  type TableSummary,
} from './read';
import { unitOf, type Quantity } from './unit';

type Role = 'voltage' | 'current';

/** No port carries more volts. Source: USB Power Delivery 3.1, extended power range, 48 V, and its tolerance. */
const MOST_V = 60;
/** The lowest level of a bus that is up. Engineering estimate: 5 V less the drop of a bad cable. */
const BUS_UP_V = 3;
/** USB Power Delivery ends at 5 A; what some chargers add beyond it stays under this. Engineering estimate. */
const MOST_A = 7;
const MOST_UNNAMED_A = 5.5;
/** A current in amps is written to a milliamp: coarser figures without a unit may be milliamps. Engineering estimate. */
const AMP_DECIMALS = 3;

/** Names of the lines beside the bus, and of settings: never taken for what the bus carries unless a person says so. */
const NOT_THE_BUS =
  /\bd\s*[+-]|\bd[pm]\b|\bcc\s*[12]?\b|\bid\b|\bsbu|\b(?:set|target|limit|max|min|avg|mean|peak|ripple|rms|req(?:uest(?:ed)?)?|cut|diff|delta|internal|shunt|sense|batt?(?:ery)?|vbat|cell|vconn)\b/i;
const BEST_NAME: Readonly<Record<Role, RegExp>> = {
  voltage: /\b(?:vbus|v bus|bus|volt(?:age)?s?|spannung|v|u)\b/i,
  current: /\b(?:ibus|i bus|curr(?:ent)?|strom|amp(?:ere)?s?|i|a)\b/i,
};

const isCandidate = (column: Column, role: Role): boolean =>
  column.kind === 'figures' && column.quantity === role && !isIndexName(column.name);

const rankOf = (column: Column, role: Role): number => {
  const name = column.name.replace(/_/g, ' ');
  if (NOT_THE_BUS.test(name)) return 0;
  return BEST_NAME[role].test(name) ? 2 : 1;
};

interface Chosen {
  readonly column?: Column;
  readonly question?: ImportQuestion;
}

/** The column of a role: the only one, or the only one that is named best; else it is asked. */
function chosenOf(columns: readonly Column[], role: Role, answers: Answers): Chosen {
  const said = answers[role];
  if (said !== undefined) {
    const column = columns.find((c) => c.name === said && c.kind === 'figures');
    if (column) return { column };
  }
  const found = columns.filter((c) => isCandidate(c, role));
  const best = Math.max(0, ...found.map((c) => rankOf(c, role)));
  const top = found.filter((c) => rankOf(c, role) === best);
  if (best > 0 && top.length === 1) return { column: top[0] };
  const choices = (top.length > 1 ? top : columns.filter((c) => c.kind === 'figures' && !isIndexName(c.name))).map(
    (c) => c.name,
  );
  const what = role === 'voltage' ? 'the voltage of the bus' : 'the current of the bus';
  return {
    question: {
      id: role,
      why:
        top.length > 1
          ? `Several columns may be ${what}: ${top.map((c) => c.name).join(', ')}.`
          : `No column is named as ${what}.`,
      choices,
    },
  };
}

/** Whether the figures make sense in a unit on a port. */
function isPlausible(role: Role, mostInBase: number, named: boolean): boolean {
  if (role === 'voltage') return mostInBase <= MOST_V && (named || mostInBase >= BUS_UP_V);
  return mostInBase <= (named ? MOST_A : MOST_UNNAMED_A);
}

const CHOICES: Readonly<Record<Role, readonly string[]>> = { voltage: ['V', 'mV'], current: ['A', 'mA', 'µA'] };

/** The column in its unit, or the question after it. */
function withUnit(
  column: Column,
  role: Role,
  answers: Answers,
  power: PowerCheck,
): { column: Column; question?: ImportQuestion; note?: string } {
  const most = mostOf(column.values);
  const ask = (why: string): { column: Column; question: ImportQuestion } => ({
    column,
    question: { id: `unit:${column.name}`, why, choices: CHOICES[role] },
  });
  if (answers[`unit:${column.name}`] !== undefined) {
    const unit = unitOf(answers[`unit:${column.name}`]);
    if (unit?.quantity !== role) return ask(`Expected a unit of ${role}; got "${answers[`unit:${column.name}`]}".`);
    return { column: column.unit ? column : inUnit(column, unit, 'answer') };
  }
  if (column.unit) {
    if (!isPlausible(role, most, true))
      return ask(
        `${column.name} is given in ${column.unit.written} and reaches ${figure(most)} ${column.unit.base}: no port carries that.`,
      );
    if (isThousandfold(column, role, most))
      return ask(
        `${column.name} is given in ${column.unit.written}, which makes ${figure(most)} ${column.unit.base} at most, written to ${column.decimals} decimals: is it so?`,
      );
    return { column };
  }
  return unnamed(column, role, most, ask, power);
}

/** A column in milli-units whose figures look like whole ones: a bus of 5 mV, or a current written to the microamp. */
const isThousandfold = (column: Column, role: Role, most: number): boolean => {
  if (column.unit!.scale !== 1e-3 || most === 0) return false;
  const raw = most * 1e3;
  return role === 'voltage'
    ? raw >= BUS_UP_V && raw <= MOST_V
    : raw <= MOST_UNNAMED_A && column.decimals >= AMP_DECIMALS;
};

const figure = (v: number): string => String(Number(v.toPrecision(4)));

function unnamed(
  column: Column,
  role: Role,
  most: number,
  ask: (why: string) => { column: Column; question: ImportQuestion },
  power: PowerCheck,
): { column: Column; question?: ImportQuestion; note?: string } {
  const base = unitOf(role === 'voltage' ? 'V' : 'A')!;
  const milli = unitOf(role === 'voltage' ? 'mV' : 'mA')!;
  const taken = (unit: typeof base): { column: Column; note: string } => ({
    column: inUnit(column, unit, 'guess'),
    note: `${column.name}: taken as ${unit.written}.`,
  });
  if (role === 'voltage') {
    if (isPlausible(role, most, false)) return taken(base);
    if (isPlausible(role, most * 1e-3, false) && most >= 1e3) return taken(milli);
    return ask(`${column.name} has no unit and reaches ${figure(most)}.`);
  }
  const byPower = power(column);
  if (byPower) return taken(byPower === 1 ? base : milli);
  if (isPlausible(role, most, false) && column.decimals >= AMP_DECIMALS) return taken(base);
  return ask(
    most > MOST_UNNAMED_A
      ? `${column.name} has no unit and reaches ${figure(most)}: as amps no port carries that.`
      : `${column.name} has no unit and is written to ${column.decimals} decimals: ${figure(most)} A or mA.`,
  );
}

/** The scale at which volts times amps give the column of watts; undefined where there is none or it does not tell. */
type PowerCheck = (current: Column) => 1 | 1e-3 | undefined;

/** Shares by which power may differ: figures are rounded, and the meter multiplies before it does. */
const POWER_TOLERANCE = 0.1;

function powerCheckOf(columns: readonly Column[], voltage: Column | undefined): PowerCheck {
  const watts = columns.find((c) => c.kind === 'figures' && c.quantity === 'power' && c.unit);
  return (current) => {
    if (!watts || !voltage?.unit) return undefined;
    const ratios: number[] = [];
    for (let i = 0; i < current.values.length; i++) {
      const product = voltage.values[i] * current.values[i];
      if (product > 0 && watts.values[i] > 0) ratios.push(watts.values[i] / product);
    }
    ratios.sort((a, b) => a - b);
    const ratio = ratios[Math.floor(ratios.length / 2)];
    for (const scale of [1, 1e-3] as const) if (Math.abs(ratio / scale - 1) < POWER_TOLERANCE) return scale;
    return undefined;
  };
}

/** Times, volts and amps of a port, from the file of any meter. */
export interface MeterTable {
  readonly trace: Trace;
  /** Which columns were taken for what, and in what unit. */
  readonly took: Readonly<Record<Role, { readonly column: string; readonly unit: string }>>;
}

const LEAST_SAMPLES = 3;
/** Meters of a port sample up to two thousand times a second. Engineering estimate. */
const LEAST_STEP_S = 5e-4;

function readMeter(file: ImportFile, answers: Answers): Outcome<MeterTable, TableSummary> {
  const table = readSampled(file, answers);
  if (isRefused(table)) return table;
  const questions: ImportQuestion[] = [...table.questions];
  const notes: string[] = [...table.notes];
  const tooFine = stepQuestion(table, LEAST_STEP_S, answers);
  if (tooFine) questions.push(tooFine);
  const figures = table.columns.filter((c) => c.kind === 'figures' && !isIndexName(c.name));
  if (figures.length < 2) return refused(`Expected a column of volts and one of amps; got ${named(figures)}.`);
  const roles = { voltage: chosenOf(figures, 'voltage', answers), current: chosenOf(figures, 'current', answers) };
  const settled: Partial<Record<Role, Column>> = {};
  for (const role of ['voltage', 'current'] as const) {
    const { column, question } = roles[role];
    if (question) questions.push(question);
    if (!column) continue;
    const made = withUnit(column, role, answers, powerCheckOf(figures, settled.voltage));
    if (made.question) questions.push(made.question);
    else settled[role] = made.column;
    if (made.note) notes.push(made.note);
  }
  const { voltage, current } = settled;
  if (voltage && current && voltage.index === current.index)
    return refused(`Expected two columns for volts and amps; got ${voltage.name} for both.`);
  const shown = table.columns.map((c) => [voltage, current].find((s) => s?.index === c.index) ?? c);
  const gaps = (voltage?.missing ?? 0) + (current?.missing ?? 0);
  const over = (voltage?.over ?? 0) + (current?.over ?? 0);
  if (gaps > 0) notes.push(`${gaps} samples are missing: their rows count for nothing.`);
  if (over > 0) notes.push(`${over} samples are over range: their rows count for nothing.`);
  const trace = voltage && current && questions.length === 0 ? traceOf(table, voltage, current) : undefined;
  if (trace && trace.timesS.length < LEAST_SAMPLES)
    return refused(`Expected ${LEAST_SAMPLES} samples or more with time, volts and amps; got ${trace.timesS.length}.`);
  return {
    kind: 'understood',
    summary: tableSummary(table, shown),
    questions,
    notes,
    signature: signatureOf(table),
    rows: previewRows(table, shown),
    ...(trace &&
      voltage &&
      current && {
        value: {
          trace,
          took: {
            voltage: { column: voltage.name, unit: voltage.unit!.written },
            current: { column: current.name, unit: current.unit!.written },
          },
        },
      }),
  };
}

const named = (columns: readonly Column[]): string => columns.map((c) => c.name).join(', ') || 'none';

/** The samples that have time, volts and amps; the direction of the current is that of the meter's plug and left out. */
function traceOf(table: SampledTable, voltage: Column, current: Column): Trace {
  const { seconds } = table.times;
  const kept: number[] = [];
  let last = -Infinity;
  for (let i = 0; i < seconds.length; i++) {
    if (Number.isNaN(seconds[i] + voltage.values[i] + current.values[i]) || seconds[i] <= last) continue;
    kept.push(i);
    last = seconds[i];
  }
  const start = kept.length > 0 ? seconds[kept[0]] : 0;
  return {
    timesS: Float64Array.from(kept, (i) => seconds[i] - start),
    volts: Float64Array.from(kept, (i) => voltage.values[i]),
    amps: Float64Array.from(kept, (i) => Math.abs(current.values[i])),
  };
}

/** A peek at the header tells a meter's file: a column of volts and one of amps. */
function scoreOf(file: ImportFile): number {
  if (!isText(file.bytes)) return 0;
  const peek: ImportFile = { name: file.name, bytes: new TextEncoder().encode(headText(file.bytes, 32 * 1024)) };
  const table = peekColumns(peek);
  if (!table) return 0;
  const has = (quantity: Quantity): number =>
    table.columns.some((c) => c.kind === 'figures' && c.quantity === quantity && !isIndexName(c.name)) ? 1 : 0;
  const both = has('voltage') + has('current');
  return both === 2 ? 0.9 : both === 1 ? 0.5 : table.layout.hasHeader ? 0.15 : 0.35;
}

export const meterTable = defineImporter<MeterTable, TableSummary>({
  id: 'meter',
  title: 'volts and amps of a USB meter',
  mostBytes: 64 * MIB,
  score: scoreOf,
  read: readMeter,
});
