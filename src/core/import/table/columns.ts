import { decimalSignOf, looksLikeFigure, readCell, type DecimalSign } from './cell';
import type { TableLayout } from './layout';
import { looksLikeTime } from './clock';
import { headerOf, unitOf, type Quantity, type Unit } from './unit';

/** Where a column's unit was read. */
export type UnitFrom = 'header' | 'units row' | 'cells' | 'unit column' | 'answer' | 'guess';

/** A column of a table, typed by what stands in it. */
export interface Column {
  readonly index: number;
  /** As it stands in the header, without its unit; `column 3` where there is none. */
  readonly name: string;
  readonly kind: 'figures' | 'times' | 'words' | 'empty';
  /** By unit, else by name; undefined where neither says it. */
  readonly quantity?: Quantity;
  readonly unit?: Unit;
  readonly unitFrom?: UnitFrom;
  /** Figures in the base unit where the unit is known, else as they stand; NaN where a sample is missing or over range. */
  readonly values: Float64Array;
  readonly missing: number;
  readonly over: number;
  /** Most digits behind the decimal sign. */
  readonly decimals: number;
  /** Cells as they stand, for times and words. */
  readonly cells: readonly string[];
}

export interface Columns {
  readonly columns: readonly Column[];
  readonly decimal: DecimalSign;
  /** Why the decimal sign is in doubt. */
  readonly decimalDoubt?: string;
}

/** Rows that are looked at to type a column. */
const LOOKED_AT = 2000;

/** What names of columns say, in several languages. The order is that of asking. */
const BY_NAME: readonly (readonly [Quantity, RegExp])[] = [
  ['energy', /\b(?:energy|energie|wh|mwh)\b/i],
  ['charge', /\b(?:capacity|charge(?:d)?|kapazit[äa]t|ladung|m?ah)\b/i],
  ['power', /\b(?:power|leistung|watts?|puissance|potencia|p)\b/i],
  ['resistance', /\b(?:resistance|widerstand|ohms?)\b/i],
  ['frequency', /\b(?:freq(?:uency)?|frequenz)\b/i],
  [
    'time',
    /^(?:(?:rel(?:ative)?|abs(?:olute)?|log|elapsed|sample|system|local|utc|unix|epoch)[\s_.-]*)*(?:time(?:[\s_.-]*stamp)?s?|timestamp|elapsed|zeit(?:punkt|stempel)?|uhrzeit|dauer|duration|date(?:[\s_/&-]*time)?|datum|datetime|ts|temps|tiempo|tempo|t|secs?|seconds?|sekunden|ms|epoch|clock)\b/i,
  ],
  [
    'current',
    /\b(?:current|curr|cur|strom(?:st[äa]rke)?|amp(?:ere)?s?|amperage|courant|corriente|corrente|i[\s_.-]?(?:bus|vbus|out|in|load|usb)?|a)\b/i,
  ],
  [
    'voltage',
    /\b(?:volt(?:age)?s?|spannung|tension|voltaje|tensione|[vu][\s_.-]?bus|[vu][\s_.-]?(?:out|in|usb)?|bus)\b/i,
  ],
  [
    'temperature',
    /\b(?:temp(?:eratur(?:e)?)?s?|t[\s_.-]?\d+|tc[\s_.-]?\d*|thermo(?:couple|element)?s?[\s_.-]?\d*|probe[\s_.-]?\d*|f[üu]hler[\s_.-]?\d*)\b/i,
  ],
];

/** The quantity that a name speaks of. Words that are run together or parted by underscores are parted first. */
export function quantityByName(name: string): Quantity | undefined {
  const apart = name
    .replace(/([a-z])([A-Z])/g, '$1 $2')
    .replace(/_/g, ' ')
    .trim();
  return BY_NAME.find(([, pattern]) => pattern.test(apart))?.[0];
}

const asText = (value: string | undefined): string => value ?? '';

/** Types the columns of a table. @param answers decimal sign, and units by `unit:<column name>`. */
export function columnsOf(layout: TableLayout, answers: Readonly<Record<string, string>> = {}): Columns {
  const { header, rows } = layout;
  const looked = rows.slice(0, LOOKED_AT);
  const kinds = header.map((_, i) => kindOf(looked.map((row) => asText(row[i]))));
  const figured = header.map((_, i) => i).filter((i) => kinds[i] === 'figures');
  const found = decimalSignOf(figured.map((i) => looked.map((row) => asText(row[i]))));
  const said = answers.decimal;
  const decimal: DecimalSign = said === 'comma' ? ',' : said === 'point' ? '.' : found.sign;
  const names = uniqueNames(header);
  const unitColumn = unitColumnsOf(rows, kinds, names);
  const columns = header.map((_, index): Column => {
    const { name, unit } = headerOf(header[index], header);
    return typed({
      index,
      name: names[index] === header[index].trim() ? name : names[index],
      kind: kinds[index],
      cells: rows.map((row) => asText(row[index])),
      decimal,
      headerUnit: unit,
      rowUnit: unitOf(layout.units[index]),
      unitCells: unitColumn.get(index) === undefined ? undefined : rows.map((r) => asText(r[unitColumn.get(index)!])),
      answer: answers[`unit:${name || names[index]}`],
    });
  });
  return found.doubt === undefined || said !== undefined
    ? { columns, decimal }
    : { columns, decimal, decimalDoubt: found.doubt };
}

/** Names as they stand, numbered where two are the same or one is empty. */
function uniqueNames(header: readonly string[]): string[] {
  const seen = new Map<string, number>();
  return header.map((text, i) => {
    const name = text.trim() || `column ${i + 1}`;
    const times = (seen.get(name) ?? 0) + 1;
    seen.set(name, times);
    return times === 1 ? name : `${name} ${times}`;
  });
}

function kindOf(cells: readonly string[]): Column['kind'] {
  let [figures, times, words] = [0, 0, 0];
  for (const cell of cells) {
    if (readCell(cell, '.').kind === 'missing' || readCell(cell, '.').kind === 'over') continue;
    if (looksLikeFigure(cell)) figures++;
    else if (looksLikeTime(cell)) times++;
    else words++;
  }
  const all = figures + times + words;
  if (all === 0) return 'empty';
  if (figures >= 0.9 * all) return 'figures';
  return times >= 0.9 * all ? 'times' : 'words';
}

/** Which column holds the units of a column of figures: words that all are units, right behind it. */
function unitColumnsOf(
  rows: readonly (readonly string[])[],
  kinds: readonly Column['kind'][],
  names: readonly string[],
): Map<number, number> {
  const found = new Map<number, number>();
  kinds.forEach((kind, i) => {
    if (kind !== 'words' || i === 0) return;
    const cells = rows.slice(0, LOOKED_AT).map((row) => asText(row[i]));
    const filled = cells.filter((c) => c !== '');
    if (filled.length === 0 || !filled.every((c) => unitOf(c))) return;
    for (let k = i - 1; k >= 0; k--)
      if (kinds[k] === 'figures' && !found.has(k) && !isIndexName(names[k])) {
        found.set(k, i);
        return;
      }
  });
  return found;
}

/** Names of columns that only count rows. */
export const isIndexName = (name: string): boolean =>
  /^(?:#|no\.?|nr\.?|n|idx|index|samples?|sample[ _-]?(?:no|nr|number|index)\.?|row|seq(?:uence)?|scans?|scan[ _-]?(?:no|nr|number)\.?|count(?:er)?|records?|rec|id|points?|num(?:ber)?|lfd\.? ?nr\.?|item|entry|reading[ _-]?(?:no|nr|number)?)$/i.test(
    name.trim(),
  );

interface RawColumn {
  readonly index: number;
  readonly name: string;
  readonly kind: Column['kind'];
  readonly cells: readonly string[];
  readonly decimal: DecimalSign;
  readonly headerUnit?: Unit;
  readonly rowUnit?: Unit;
  readonly unitCells?: readonly string[];
  readonly answer?: string;
}

function typed(raw: RawColumn): Column {
  const { index, name, kind, cells } = raw;
  const values = new Float64Array(cells.length).fill(NaN);
  if (kind !== 'figures')
    return {
      index,
      name,
      kind,
      cells,
      values,
      quantity: kind === 'times' ? 'time' : undefined,
      missing: 0,
      over: 0,
      decimals: 0,
    };
  const answered = raw.answer === undefined ? undefined : unitOf(raw.answer);
  const stated = answered ?? raw.headerUnit ?? raw.rowUnit;
  let [missing, over, decimals] = [0, 0, 0];
  let cellUnit: Unit | undefined;
  let bare = 0;
  cells.forEach((text, i) => {
    const cell = readCell(text, raw.decimal);
    if (cell.kind === 'figure') {
      const own = cell.unit ?? (raw.unitCells ? unitOf(raw.unitCells[i]) : undefined);
      cellUnit ??= own;
      if (!own) bare++;
      const unit = answered ?? own ?? stated;
      values[i] = unit ? cell.value * unit.scale + unit.offset : cell.value;
      decimals = Math.max(decimals, decimalsIn(text, raw.decimal));
    } else if (cell.kind === 'over') over++;
    else missing++;
  });
  const unit = stated ?? (bare === 0 ? cellUnit : undefined);
  const unitFrom: UnitFrom | undefined = answered
    ? 'answer'
    : raw.headerUnit
      ? 'header'
      : raw.rowUnit
        ? 'units row'
        : unit
          ? raw.unitCells
            ? 'unit column'
            : 'cells'
          : undefined;
  return {
    index,
    name,
    kind,
    quantity: unit?.quantity ?? quantityByName(name),
    unit,
    unitFrom,
    values,
    missing,
    over,
    decimals,
    cells,
  };
}

const decimalsIn = (text: string, sign: DecimalSign): number => {
  const at = text.lastIndexOf(sign);
  return at < 0 ? 0 : (/^\d*/.exec(text.slice(at + 1))?.[0].length ?? 0);
};

/** Largest magnitude of the figures that are there; 0 where there are none. */
export const mostOf = (values: Float64Array): number => {
  let most = 0;
  for (const v of values) if (!Number.isNaN(v) && Math.abs(v) > most) most = Math.abs(v);
  return most;
};

/** A column with its figures in a unit that is known now. */
export const inUnit = (column: Column, unit: Unit, unitFrom: UnitFrom): Column => ({
  ...column,
  unit,
  unitFrom,
  quantity: unit.quantity,
  values: column.unit ? column.values : column.values.map((v) => v * unit.scale + unit.offset),
});

/** What a column holds, for showing: figures in the base unit. */
export interface ColumnSummary {
  readonly name: string;
  /** The base unit, or nothing where it is not known. */
  readonly unit: string | null;
  readonly count: number;
  readonly missing: number;
  readonly first: number | null;
  readonly last: number | null;
  readonly min: number | null;
  readonly max: number | null;
}

/** Decimal places to which figures of a summary are rounded: nothing here is read to more than a microsecond or microvolt. */
const PLACES = 9;
const rounded = (v: number): number => Number(v.toFixed(PLACES));

export function summaryOf(name: string, unit: string | null, values: Float64Array): ColumnSummary {
  let [count, first, last, min, max] = [0, NaN, NaN, Infinity, -Infinity];
  for (const v of values) {
    if (Number.isNaN(v)) continue;
    if (count === 0) first = v;
    last = v;
    if (v < min) min = v;
    if (v > max) max = v;
    count++;
  }
  const figure = (v: number): number | null => (count === 0 ? null : rounded(v));
  return {
    name,
    unit,
    count,
    missing: values.length - count,
    first: figure(first),
    last: figure(last),
    min: figure(min),
    max: figure(max),
  };
}
