import { unitOf } from './unit';
import { looksLikeFigure } from './cell';
import { looksLikeTime } from './clock';
import type { TableLayout } from './layout';

const MOST_CHANNELS = 16;

/**
 * A table with one value a row and a column that names its channel, made into one with a column per channel. The k-th rows of
 * all channels are one sample, at the time of the first of them; a table that is not so is given back as it is.
 */
export function pivoted(layout: TableLayout): TableLayout {
  const { rows, header } = layout;
  const kinds = header.map((_, i) => columnKind(rows, i));
  const values = kinds.flatMap((k, i) => (k === 'figure' ? [i] : []));
  const times = kinds.flatMap((k, i) => (k === 'time' ? [i] : []));
  const units = header.findIndex((_, i) => kinds[i] === 'word' && rows.every((r) => r[i] === '' || unitOf(r[i] ?? '')));
  const named = header.findIndex(
    (name, i) =>
      kinds[i] === 'word' &&
      i !== units &&
      /^(?:ch|chan|kanal|channel|quantity|signal|parameter|variable|sensor|probe|what|name|measurement)/i.test(name),
  );
  const timed = times.length > 0 ? times : values.filter((i) => /time|zeit|^t$|stamp|elapsed/i.test(header[i]));
  const value = values.filter((i) => !timed.includes(i) && !/^(?:#|no\.?|nr\.?|idx|index|row|id|n)$/i.test(header[i]));
  if (value.length !== 1) return layout;
  const key = named >= 0 ? named : units;
  if (key < 0) return layout;
  const groups = new Map<string, (readonly string[])[]>();
  for (const row of rows) {
    const name = row[key] ?? '';
    groups.set(name, [...(groups.get(name) ?? []), row].slice(-rows.length));
    if (groups.size > MOST_CHANNELS) return layout;
  }
  if (groups.size < 2) return layout;
  return laidOut(layout, groups, timed, value[0], units);
}

function laidOut(
  layout: TableLayout,
  groups: ReadonlyMap<string, readonly (readonly string[])[]>,
  timed: readonly number[],
  value: number,
  units: number,
): TableLayout {
  const counts = [...groups.values()].map((g) => g.length);
  const shortest = Math.min(...counts);
  if (Math.max(...counts) - shortest > 1) return layout;
  const names = [...groups.keys()];
  const lists = [...groups.values()];
  const rows = Array.from({ length: shortest }, (_, k) => [
    ...timed.map((i) => lists[0][k][i] ?? ''),
    ...lists.map((list) => `${list[k][value] ?? ''} ${units >= 0 ? (list[k][units] ?? '') : ''}`.trim()),
  ]);
  return {
    ...layout,
    header: [...timed.map((i) => layout.header[i]), ...names],
    units: [...timed.map((i) => layout.units[i]), ...names.map(() => '')],
    rows,
    notes: [...layout.notes, `One value a row: taken apart into ${names.join(', ')}.`],
  };
}

function columnKind(rows: readonly (readonly string[])[], i: number): 'figure' | 'time' | 'word' | 'mixed' {
  let [figures, times, words, all] = [0, 0, 0, 0];
  for (const row of rows.slice(0, 200)) {
    const cell = row[i] ?? '';
    if (cell === '') continue;
    all++;
    if (looksLikeFigure(cell)) figures++;
    else if (looksLikeTime(cell)) times++;
    else words++;
  }
  if (all === 0) return 'mixed';
  return figures > 0.8 * all ? 'figure' : times > 0.8 * all ? 'time' : words > 0.9 * all ? 'word' : 'mixed';
}
