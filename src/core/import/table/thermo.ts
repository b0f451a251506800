import { logOf, type ThermoLog } from '../../calibration';
import {
  defineImporter,
  MIB,
  refused,
  refusedFor,
  type Answers,
  type ImportFile,
  type ImportQuestion,
  type Outcome,
} from '../importer';
import { headText, isText } from '../text/encoding';
import { inUnit, isIndexName, type Column } from './columns';
import {
  isRefused,
  previewRows,
  peekColumns,
  readSampled,
  signatureOf,
  stepQuestion,
  tableSummary,
  type TableSummary,
} from './read';
import { unitOf } from './unit';

/** Readings of thermocouples over a hot-air bench, °C. */
const LEAST_C = -30;
const MOST_C = 600;
/** A log begins in a room: outside of these a figure without a unit is asked. Engineering estimate. */
const ROOM_C = [5, 45] as const;
const UNITS = ['°C', '°F', 'K'] as const;
/** Loggers of thermocouples read them up to two hundred times a second. Engineering estimate. */
const LEAST_STEP_S = 5e-3;
/** A few readings far beyond what is read here are an instrument's sign for an open probe; more are no thermocouple's. Engineering estimate. */
const MOST_BEYOND = 0.05;
const isBeyond = (c: number): boolean => c > MOST_C || c < LEAST_C;

/** A probe whose few readings beyond the range are gaps, and the sentence that says so; as it is where there are more. */
function withoutSigns(column: Column): { column: Column; note?: string } {
  const beyond = column.values.filter(isBeyond);
  if (beyond.length === 0 || beyond.length > MOST_BEYOND * column.values.length || !column.unit) return { column };
  const { unit, name, values } = column;
  const written = Number(((beyond[0] - unit.offset) / unit.scale).toPrecision(6));
  return {
    column: { ...column, values: values.map((v) => (isBeyond(v) ? NaN : v)), over: column.over + beyond.length },
    note: `${name}: ${beyond.length === 1 ? `a reading of ${written} is` : `${beyond.length} readings such as ${written} are`} no temperature of a bench.`,
  };
}

const PROBE_NAME =
  /^(?:t|tc|k|ch|chan|channel|kanal|probe|sensor|temp|temperature|temperatur|thermo|thermocouple|f[üu]hler|joint|outlet|air|board|input|in)[\s_.-]*[a-z]?\d*\b/i;
const NO_PROBE =
  /\b(?:set(?:[\s_-]?point)?|target|sp|alarm|limit|status|error|flags?|batt?(?:ery)?|humidity|rh|power|fan|duty|output)\b/i;

const isProbe = (column: Column): boolean => {
  if (column.kind !== 'figures' || isIndexName(column.name) || NO_PROBE.test(column.name.replace(/_/g, ' ')))
    return false;
  if (column.unit) return column.quantity === 'temperature';
  return column.quantity === 'temperature' || column.quantity === undefined || PROBE_NAME.test(column.name);
};

const firstOf = (values: Float64Array): number => values.find((v) => !Number.isNaN(v)) ?? NaN;

/** A probe in °C, or the question after its unit. */
function inCelsius(column: Column, answers: Answers): { column: Column; question?: ImportQuestion; note?: string } {
  const id = `unit:${column.name}`;
  const start = firstOf(column.values);
  const said = answers[id] ?? answers.unit;
  if (said !== undefined) {
    const unit = unitOf(said);
    if (unit?.quantity === 'temperature') {
      if (answers[id] !== undefined && column.unit) return { column };
      return { column: column.unit ? column : inUnit(column, unit, 'answer') };
    }
  }
  const inRoom = start >= ROOM_C[0] && start <= ROOM_C[1];
  if (column.unit) {
    if (start >= LEAST_C && start <= MOST_C && (column.unit.written === '°C' || inRoom || start > ROOM_C[1]))
      return { column };
    return {
      column,
      question: {
        id,
        why: `${column.name} is given in ${column.unit.written} and begins at ${start.toFixed(1)} °C: no room is so.`,
        choices: UNITS,
      },
    };
  }
  if (inRoom) return { column: inUnit(column, unitOf('°C')!, 'guess'), note: `${column.name}: taken as °C.` };
  return {
    column,
    question: { id, why: `${column.name} has no unit and begins at ${Number(start.toPrecision(4))}.`, choices: UNITS },
  };
}

function readThermo(file: ImportFile, answers: Answers): Outcome<ThermoLog, TableSummary> {
  const table = readSampled(file, answers);
  if (isRefused(table)) return table;
  const probes = table.columns.filter(isProbe).filter((c) => c.values.some((v) => !Number.isNaN(v)));
  if (probes.length === 0) {
    const names = table.columns.map((c) => (c.unit ? `${c.name} in ${c.unit.written}` : c.name));
    return refused(`Expected a column of temperatures beside the time; got ${names.join(', ') || 'none'}.`);
  }
  const questions: ImportQuestion[] = [...table.questions];
  const notes: string[] = [...table.notes];
  const tooFine = stepQuestion(table, LEAST_STEP_S, answers);
  if (tooFine) questions.push(tooFine);
  const made = probes.map((column) => inCelsius(column, answers));
  for (const { question, note } of made) {
    if (question) questions.push(question);
    if (note) notes.push(note);
  }
  const cleaned = made.map((m) => withoutSigns(m.column));
  notes.push(...cleaned.flatMap(({ note }) => note ?? []));
  const settled = cleaned.map((m) => m.column);
  const gaps = settled.reduce((sum, c) => sum + c.missing + c.over, 0);
  if (gaps > 0) notes.push(`${gaps} samples are missing: they stay gaps.`);
  const shown = table.columns.map((c) => settled.find((s) => s.index === c.index) ?? c);
  const summary = tableSummary(table, shown);
  if (questions.length > 0)
    return {
      kind: 'understood',
      summary,
      questions,
      notes,
      signature: signatureOf(table),
      rows: previewRows(table, shown),
    };
  for (const { name, values } of settled) {
    const row = values.findIndex(isBeyond);
    if (row >= 0)
      return refused(
        `Expected readings from ${LEAST_C} to ${MOST_C} °C; got ${Number(values[row].toPrecision(6))} °C in ${name}, row ${row + 1}.`,
      );
  }
  const log = logOf(
    [...table.times.seconds],
    settled.map((c) => ({ name: c.name, readC: [...c.values] })),
  );
  if (!log.ok) return refusedFor(log.problems);
  return {
    kind: 'understood',
    summary,
    questions,
    notes,
    signature: signatureOf(table),
    rows: previewRows(table, shown),
    value: log.value,
  };
}

function scoreOf(file: ImportFile): number {
  if (!isText(file.bytes)) return 0;
  const table = peekColumns({ name: file.name, bytes: new TextEncoder().encode(headText(file.bytes, 32 * 1024)) });
  if (!table) return 0;
  const figures = table.columns.filter((c) => c.kind === 'figures' && !isIndexName(c.name));
  const temperatures = figures.filter((c) => c.quantity === 'temperature').length;
  const electric = figures.filter((c) => c.quantity === 'voltage' || c.quantity === 'current').length;
  if (electric >= 2) return 0.1;
  if (temperatures > 0) return electric > 0 ? 0.4 : 0.9;
  const likeProbes = figures.filter((c) => isProbe(c) && PROBE_NAME.test(c.name)).length;
  return likeProbes > 0 && likeProbes === figures.length ? 0.7 : figures.some(isProbe) ? 0.3 : 0;
}

export const thermoTable = defineImporter<ThermoLog, TableSummary>({
  id: 'thermocouple',
  title: 'temperatures of a thermocouple logger',
  mostBytes: 64 * MIB,
  score: scoreOf,
  read: readThermo,
});
