import {
  refused,
  refusedFor,
  type Answers,
  type ImportFile,
  type ImportQuestion,
  type Outcome,
  type Refused,
} from '../importer';
import { columnsOf, summaryOf, type Column, type ColumnSummary } from './columns';
import { layoutOf, type TableLayout } from './layout';
import { pivoted } from './pivot';
import { typicalStep } from './spread';
import { TIME_UNITS, timesOf, type RowTimes } from './times';

/** A table of samples: when each row was taken, and its columns. */
export interface SampledTable {
  readonly layout: TableLayout;
  readonly times: RowTimes;
  /** All columns but those that tell the time. */
  readonly columns: readonly Column[];
  readonly questions: readonly ImportQuestion[];
  readonly notes: readonly string[];
}

export interface TableSummary {
  readonly kind: 'table';
  readonly encoding: string;
  readonly rows: number;
  readonly durationS: number | null;
  readonly columns: readonly ColumnSummary[];
}

const LEAST_ROWS = 2;

/** The columns of a file, before anything is made of its times: enough to tell what kind of table it is. */
export function peekColumns(
  file: ImportFile,
): { readonly layout: TableLayout; readonly columns: readonly Column[] } | undefined {
  const found = layoutOf(file.bytes);
  if (!found.ok || found.value.rows.length < LEAST_ROWS) return undefined;
  const layout = pivoted(found.value);
  return { layout, columns: columnsOf(layout).columns };
}

/** A layout with its columns and times. */
function placed(layout: TableLayout, answers: Answers) {
  const { columns, decimalDoubt } = columnsOf(layout, answers);
  return { layout, columns, decimalDoubt, times: timesOf(layout, columns, answers) };
}
type Placed = ReturnType<typeof placed>;

/** The same with its rows the other way round where they begin with the newest: times that all go back are in order then. */
function oldestFirst(found: Placed, answers: Answers): Placed {
  if (!found.times.problem) return found;
  const rows = [...found.layout.rows].reverse();
  const notes = [...found.layout.notes, 'The newest row stands first: read from the last one on.'];
  const turned = placed({ ...found.layout, rows, notes }, answers);
  return turned.times.problem || turned.times.from.length === 0 ? found : turned;
}

/** The same without rows that say no time, such as sums below the samples: they are none. */
function withoutTimeless(found: Placed, answers: Answers): Placed {
  const { layout, times } = found;
  if (times.problem || times.questions.length > 0) return found;
  const timeless = layout.rows.filter((_, i) => Number.isNaN(times.seconds[i]));
  if (timeless.length === 0) return found;
  const count = `${timeless.length} ${timeless.length === 1 ? 'row has no time and is' : 'rows have no time and are'}`;
  return placed(
    {
      ...layout,
      rows: layout.rows.filter((_, i) => !Number.isNaN(times.seconds[i])),
      notes: [...layout.notes, `${count} left out: "${timeless[0].join(layout.delimiter).slice(0, 60)}".`],
    },
    answers,
  );
}

/** Reads a file as a table of samples; refused where it is none or where its times go back. */
export function readSampled(file: ImportFile, answers: Answers): SampledTable | Refused {
  const found = layoutOf(file.bytes);
  if (!found.ok) return refusedFor(found.problems);
  const whole = pivoted(found.value);
  if (whole.rows.length < LEAST_ROWS) return refused(`Expected rows of samples; got ${whole.rows.length}.`);
  const read = withoutTimeless(oldestFirst(placed(whole, answers), answers), answers);
  const { layout, columns, decimalDoubt, times } = read;
  // With the other decimal sign the times may go on.
  if (times.problem && decimalDoubt === undefined) return refused(times.problem);
  const questions: ImportQuestion[] = [...times.questions];
  if (decimalDoubt !== undefined)
    questions.unshift({
      id: 'decimal',
      why: `Figures such as ${decimalDoubt} may be whole ones in groups of three or have decimals.`,
      choices: ['comma', 'point'],
    });
  return {
    layout,
    times,
    columns: columns.filter((c) => !times.from.includes(c)),
    questions,
    notes: [...layout.notes, ...times.notes],
  };
}

/**
 * Asked where the times are given in a part of a second that makes samples closer than such an instrument takes them, while as
 * seconds they would be usual: a header that names the wrong unit.
 */
export function stepQuestion(
  { times }: SampledTable,
  leastStepS: number,
  answers: Answers,
): ImportQuestion | undefined {
  const [column] = times.from;
  const id = `unit:${column?.name}`;
  if (times.from.length !== 1 || column.kind !== 'figures' || !column.unit || answers[id] !== undefined)
    return undefined;
  const stepS = typicalStep(times.seconds);
  if (column.unit.scale >= 1 || stepS >= leastStepS || stepS / column.unit.scale < leastStepS) return undefined;
  return {
    id,
    why: `${column.name} is given in ${column.unit.written}, which makes a sample every ${Number((stepS * 1e3).toPrecision(3))} ms: is it so?`,
    choices: TIME_UNITS,
  };
}

/** What tables of one instrument have in common. */
export const signatureOf = ({ layout }: SampledTable): string =>
  [layout.delimiter, ...layout.header.map((name, i) => `${name} ${layout.units[i]}`.trim())].join('|').slice(0, 400);

/** What a table holds, the time first. */
export function tableSummary(table: SampledTable, columns: readonly Column[]): TableSummary {
  const { seconds, from, questions } = table.times;
  const timeName = from.map((c) => c.name).join(' ') || 'time';
  const time = summaryOf(timeName, questions.length > 0 ? null : 's', seconds);
  return {
    kind: 'table',
    encoding: table.layout.encoding,
    rows: table.layout.rows.length,
    durationS: time.last,
    columns: [
      time,
      ...columns
        .filter((c) => c.kind === 'figures')
        .map((c) => summaryOf(c.name, c.unit ? c.unit.base : null, c.values)),
    ],
  };
}

/** The first rows as they were understood: names with units, then figures. */
export function previewRows(table: SampledTable, columns: readonly Column[], most = 5): string[][] {
  const shown = columns.filter((c) => c.kind === 'figures');
  const figure = (v: number): string => (Number.isNaN(v) ? '' : String(Number(v.toPrecision(7))));
  const rows = Math.min(most, table.layout.rows.length);
  return [
    ['time (s)', ...shown.map((c) => (c.unit ? `${c.name} (${c.unit.base})` : c.name))],
    ...Array.from({ length: rows }, (_, i) => [
      figure(table.times.seconds[i]),
      ...shown.map((c) => figure(c.values[i])),
    ]),
  ];
}

export const isRefused = <T, S>(outcome: SampledTable | Outcome<T, S>): outcome is Refused =>
  'kind' in outcome && outcome.kind === 'refused';
