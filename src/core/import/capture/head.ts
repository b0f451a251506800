import { unitOf, headerOf, type Unit } from '../table/unit';
import { clockSeconds } from './clock';

/** What a column of a capture's table is. */
export type ColumnKind = 'time' | 'index' | 'logic' | 'volts' | 'other';

/** The layout of a capture's table, found from its beginning. */
export interface CaptureHead {
  readonly delimiter: number;
  readonly kinds: readonly ColumnKind[];
  readonly names: readonly string[];
  /** Column of the time; -1 where rows carry none. */
  readonly timeColumn: number;
  /** The time column holds clocks, not figures. */
  readonly isClock: boolean;
  /** Seconds to a unit of the time column; undefined where the header names no unit. */
  readonly timeScaleS?: number;
  /** Volts to a unit of each column of volts. */
  readonly voltScale: readonly number[];
  /** Lines before the first row. */
  readonly skipLines: number;
  /** Samples in a second where the file says it, or where the times are evenly apart. */
  readonly rateHz?: number;
}

const DELIMITERS = [',', ';', '\t', '|'] as const;
const LOGIC = /^(?:[01]|[hl]|high|low|true|false)$/i;
const FIGURE = /^[-+]?(?:\d+(?:[.,]\d*)?|[.,]\d+)(?:e[-+]?\d+)?$/i;
const REMARK = /^\s*(?:[;#%]|\/\/)/;
const TIME_NAME = /^(?:time|zeit|t|x-?axis|x|sec(?:ond)?s?|timestamp|start[_ ]time)\b/i;
const INDEX_NAME = /^(?:#|n|no\.?|idx|index|samples?|sample[ _]?(?:no|number|index)|row|point)$/i;
const LOOKED_AT = 400;

/** Rate or interval that a line above the rows names, samples in a second. */
function rateIn(line: string): number | undefined {
  const rate =
    /(?:sample|sampling)?\s*(?:rate|frequency)\D{0,12}([\d.]+(?:e[-+]?\d+)?)\s*([kMG]?)\s*(?:Hz|S\/s|Sa\/s|sps)/i.exec(
      line,
    );
  if (rate) return Number(rate[1]) * ({ k: 1e3, m: 1e6, M: 1e6, g: 1e9, G: 1e9 }[rate[2]] ?? 1);
  const step =
    /(?:interval|increment|period)\W*(?:[,;\t]\s*)?([\d.]+(?:e[-+]?\d+)?)\s*[,;\t"]*\s*(ns|us|µs|ms|s)?/i.exec(line);
  const unit = unitOf(step?.[2] ?? 's');
  return step && unit && Number(step[1]) > 0 ? 1 / (Number(step[1]) * unit.scale) : undefined;
}

/** Finds separator, columns and first row; undefined where the beginning is no table of levels. */
export function captureHead(text: string): CaptureHead | undefined {
  const lines = text.split(/\r\n|\n|\r/);
  if (lines.length > 3) lines.pop();
  const clean = lines.slice(0, LOOKED_AT + 60);
  const best = DELIMITERS.map((d) => shapeOf(clean, d))
    .filter((s) => s !== undefined)
    .reduce<Shape | undefined>(
      (a, b) => (a === undefined || b.rows.length * b.width > a.rows.length * a.width ? b : a),
      undefined,
    );
  if (!best) return undefined;
  return typedHead(clean, best);
}

interface Shape {
  readonly delimiter: string;
  readonly width: number;
  readonly first: number;
  readonly rows: readonly (readonly string[])[];
}

const cellsOf = (line: string, delimiter: string): string[] =>
  line.split(delimiter).map((cell) =>
    cell
      .trim()
      .replace(/^"(.*)"$/, '$1')
      .trim(),
  );
const isClock = (cell: string): boolean => !Number.isNaN(clockSeconds(cell));
const isLevelOrFigure = (cell: string): boolean => LOGIC.test(cell) || FIGURE.test(cell) || isClock(cell);
/** A time as it stands in a cell, in its own unit; NaN where it is none. */
export const timeIn = (cell: string): number => (isClock(cell) ? clockSeconds(cell) : Number(cell.replace(',', '.')));

function shapeOf(lines: readonly string[], delimiter: string): Shape | undefined {
  const rows = lines.map((line, i) => ({ i, remark: REMARK.test(line), cells: cellsOf(line, delimiter) }));
  const data = rows.filter(
    ({ remark, cells }) =>
      !remark &&
      cells.some(isLevelOrFigure) &&
      cells.filter(isLevelOrFigure).length >= cells.filter((c) => c !== '').length / 2 &&
      isLevelOrFigure(cells.filter((c) => c !== '').at(-1) ?? ''),
  );
  const widths = new Map<number, number>();
  for (const { cells } of data) widths.set(cells.length, (widths.get(cells.length) ?? 0) + 1);
  const [width, count] = [...widths].reduce((a, b) => (b[1] > a[1] ? b : a), [0, 0]);
  // A line that stays silent leaves one row; below a header that is enough.
  const least = rows.some(({ cells }) => cells.length === width && TIME_NAME.test(headerOf(cells[0]).name)) ? 1 : 3;
  if (count < least || width > 64) return undefined;
  const fitting = data.filter(({ cells }) => cells.length === width);
  // A row of names such as "x-axis, 1, 2" is none of the rows: those go on without a break.
  let first = fitting[0].i;
  for (let k = 1; k < Math.min(fitting.length, 80); k++)
    if (fitting[k].i !== fitting[k - 1].i + 1) first = fitting[k].i;
  const kept = fitting.filter(({ i }) => i >= first).map(({ cells }) => cells);
  return kept.length < least ? undefined : { delimiter, width, first, rows: kept };
}

function typedHead(lines: readonly string[], { delimiter, width, first, rows }: Shape): CaptureHead | undefined {
  const above = lines
    .slice(0, first)
    .map((line) => ({ line, cells: cellsOf(line, delimiter), remark: REMARK.test(line) }));
  let names: string[] = [];
  let units: (Unit | undefined)[] = [];
  const near = above.filter(({ cells, remark }) => !remark && cells.length === width).slice(-2);
  const last = near.at(-1)?.cells;
  const bare = last?.map((c) => c.replace(/^[([{]|[)\]}]$/g, '').trim());
  if (bare && near.length === 2 && bare.every((c) => c === '' || unitOf(c) !== undefined)) {
    units = bare.map((c) => unitOf(c));
    names = near[0].cells;
  } else if (last) names = last;
  const channelsLine = above
    .map(({ line }) => /channels?\s*(?:\([^)]*\))?\s*:\s*(.+)$/i.exec(line)?.[1])
    .find((m) => m);
  const parsed = Array.from({ length: width }, (_, i) => headerOf(names[i] ?? ''));
  const column = (i: number): string[] => rows.map((row) => row[i] ?? '');
  const valid = (i: number): number => column(i).filter(isLevelOrFigure).length / rows.length;
  const rising = (i: number): boolean => {
    const values = column(i).map(timeIn);
    const goesOn = values.length === 1 || values.at(-1)! > values[0];
    return goesOn && values.every((v, k) => !Number.isNaN(v) && (k === 0 || v >= values[k - 1]));
  };
  const isLogic = (i: number): boolean => column(i).every((c) => LOGIC.test(c));
  const byName = parsed.findIndex(
    (p, i) => valid(i) > 0.95 && (TIME_NAME.test(p.name) || p.unit?.quantity === 'time') && rising(i),
  );
  const byValue = Array.from({ length: width }, (_, i) => i).find(
    (i) => valid(i) > 0.95 && rising(i) && !isLogic(i) && !INDEX_NAME.test(parsed[i].name),
  );
  const timeColumn = byName >= 0 ? byName : width > 1 ? (byValue ?? -1) : -1;
  const kinds = Array.from({ length: width }, (_, i): ColumnKind => {
    if (i === timeColumn) return 'time';
    if (valid(i) <= 0.95) return 'other';
    if (isLogic(i)) return 'logic';
    if (column(i).some(isClock)) return 'other';
    return INDEX_NAME.test(parsed[i].name) && rising(i) ? 'index' : 'volts';
  });
  const channels = kinds.filter((k) => k === 'logic' || k === 'volts').length;
  if (channels === 0) return undefined;
  const given = channelsLine?.split(/\s*,\s*/);
  let channel = 0;
  const shown = kinds.map((kind, i) => {
    if (kind !== 'logic' && kind !== 'volts') return parsed[i].name;
    const own = parsed[i].name;
    const number = channel++;
    return given && given.length === channels
      ? given[number]
      : own === '' || /^(?:logic|analog)$/i.test(own)
        ? `channel ${number + 1}`
        : own;
  });
  const stated = above.map(({ line }) => rateIn(line)).find((r) => r !== undefined);
  const timeUnit = timeColumn < 0 ? undefined : (units[timeColumn] ?? parsed[timeColumn].unit);
  const clock = timeColumn >= 0 && column(timeColumn).every(isClock);
  const timeScaleS = clock ? 1 : timeUnit?.quantity === 'time' ? timeUnit.scale : undefined;
  const even = timeColumn >= 0 ? evenStep(column(timeColumn)) : undefined;
  return {
    delimiter: delimiter.charCodeAt(0),
    kinds,
    names: shown,
    timeColumn,
    isClock: clock,
    timeScaleS,
    voltScale: kinds.map((_, i) => {
      const unit = units[i] ?? parsed[i].unit;
      return unit?.quantity === 'voltage' ? unit.scale : 1;
    }),
    skipLines: first,
    rateHz:
      timeColumn < 0 ? stated : even !== undefined && timeScaleS !== undefined ? 1 / (even * timeScaleS) : undefined,
  };
}

/** The step of times that are evenly apart; undefined where they are not. */
function evenStep(cells: readonly string[]): number | undefined {
  const times = cells.slice(0, 200).map(timeIn);
  const step = (times.at(-1)! - times[0]) / (times.length - 1);
  const even = times.every((t, i) => i === 0 || Math.abs(t - times[i - 1] - step) < 0.25 * step);
  return even && step > 0 ? step : undefined;
}
