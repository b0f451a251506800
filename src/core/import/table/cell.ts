import { unitOf, type Unit } from './unit';

/** What stands in a cell. */
export type Cell =
  | { readonly kind: 'figure'; readonly value: number; readonly unit?: Unit }
  | { readonly kind: 'missing' }
  | { readonly kind: 'over' }
  | { readonly kind: 'text' };

export type DecimalSign = '.' | ',';

const MISSING = /^(?:|[-–—_.*?#]+|n\/?a|#n\/a|nan|null|none|nil|missing|no ?data|err(?:or)?)$/i;
const OVER =
  /^[-+<>]?\s*(?:o\.?l\.?|0l|\.ol|over(?:load|range|flow)?|ovr|ovf|ovld|inf(?:inity)?|∞|open)\s*[a-zµμΩ°%]*$/i;
/** Instruments write 9.9e37 where a figure is beyond their range. Source: SCPI-1999, section 7.2.1.4. */
const OVER_FIGURE = 9.8e37;

const FIGURE = /^([-+−]?\s*(?:\d[\d.,'  ]*|[.,]\d+)(?:[eE][-+]?\d+)?)\s*(.*)$/u;

/** Whether a cell holds a figure, with or without a unit, whatever its decimal sign. */
export const looksLikeFigure = (text: string): boolean => {
  const found = FIGURE.exec(text.trim());
  if (!found || (figureOf(found[1], '.') ?? figureOf(found[1], ',')) === undefined) return false;
  return found[2] === '' || unitOf(found[2]) !== undefined;
};

export const isMissing = (text: string): boolean => MISSING.test(text.trim());
export const isOver = (text: string): boolean => OVER.test(text.trim());

/** Reads a cell. Groups of three digits are taken apart only where the other sign is the decimal one. */
export function readCell(text: string, decimal: DecimalSign): Cell {
  const clean = text.trim();
  if (MISSING.test(clean)) return { kind: 'missing' };
  if (OVER.test(clean)) return { kind: 'over' };
  const found = FIGURE.exec(clean);
  if (!found) return { kind: 'text' };
  const unit = found[2] === '' ? undefined : unitOf(found[2]);
  if (found[2] !== '' && !unit) return { kind: 'text' };
  const value = figureOf(found[1], decimal);
  if (value === undefined) return { kind: 'text' };
  if (Math.abs(value) > OVER_FIGURE) return { kind: 'over' };
  return unit ? { kind: 'figure', value, unit } : { kind: 'figure', value };
}

/** What parts groups of three digits, by the decimal sign beside it. */
const GROUPS: Readonly<Record<DecimalSign, RegExp>> = {
  '.': /[,'\u00a0\u202f ]/,
  ',': /[.'\u00a0\u202f ]/,
};
/** A figure that reads the same to everyone, as most do: no need to look for groups. */
const PLAIN = /^[-+]?\d+(?:\.\d+)?(?:[eE][-+]?\d+)?$/;

function figureOf(written: string, decimal: DecimalSign): number | undefined {
  if ((decimal === '.' || !written.includes('.')) && PLAIN.test(written)) return Number(written);
  const plain = written
    .replace(/−/, '-')
    .replace(/^([-+])\s+/, '$1')
    .trim();
  const [whole, fraction, ...more] = plain.split(decimal);
  if (more.length > 0) return undefined;
  const groups = whole.split(GROUPS[decimal]);
  if (groups.length > 1 && !groups.every((g, i) => (i === 0 ? /^[-+]?\d{1,3}$/ : /^\d{3}$/).test(g))) return undefined;
  const value = Number(fraction === undefined ? groups.join('') : `${groups.join('')}.${fraction}`);
  return Number.isNaN(value) ? undefined : value;
}

/** What the figures of a table say of its decimal sign. */
export interface DecimalFinding {
  readonly sign: DecimalSign;
  /** Set where the figures may as well be whole ones in groups of three. */
  readonly doubt?: string;
}

/** Looks at the figures of each column: the last of two different signs is the decimal one; a sign that comes twice is not. */
export function decimalSignOf(columns: readonly (readonly string[])[]): DecimalFinding {
  const votes = { '.': 0, ',': 0 };
  let doubt: string | undefined;
  for (const cells of columns) {
    const figures = cells
      .map((c) => FIGURE.exec(c.trim())?.[1].trim())
      .filter((c) => c !== undefined)
      .filter((c) => !/e/i.test(c));
    for (const figure of figures) {
      const [dot, comma] = [figure.lastIndexOf('.'), figure.lastIndexOf(',')];
      const twice = (sign: string): boolean => figure.indexOf(sign) !== figure.lastIndexOf(sign);
      if (dot >= 0 && comma >= 0) votes[dot > comma ? '.' : ',']++;
      else if (dot >= 0) votes[twice('.') ? ',' : '.']++;
      else if (comma >= 0) votes[twice(',') ? '.' : ',']++;
    }
    for (const sign of ['.', ','] as const) {
      const grouped = figures.filter((f) => f.includes(sign));
      const whole = figures.filter((f) => /^[-+]?\d{3}$/.test(f));
      const likeGroups = (f: string): boolean => new RegExp(`^[-+]?[1-9]\\d{0,2}(\\${sign}\\d{3})+$`).test(f);
      if (grouped.length > 0 && whole.length > 0 && grouped.every(likeGroups)) doubt = grouped[0];
    }
  }
  const sign = votes[','] > votes['.'] ? ',' : '.';
  const mixed = votes[','] > 0 && votes['.'] > 0;
  if (mixed) doubt ??= 'both signs';
  return doubt === undefined ? { sign } : { sign, doubt };
}
