/**
 * What instruments answer, as it is meant: figures with and without units, decimal commas, over-range in its several forms, on and off.
 * What cannot be read is a problem, never a figure.
 */

/** A reply that is not what was asked for. */
export class InstrumentProblem extends Error {}

/** What a figure is of. */
export type Quantity = 'V' | 'A' | 'Ω' | 'drop';

/** SCPI-1999, 7.2.1.2: the figure that stands for an overload or an open input. */
const OVERLOAD = 9.9e37;
/** Hand meters on a line say over-range in ohms as a round 1E9. Common practice, no source. */
const OVERLOAD_OHM = 1e9;
/** How over-range is shown in letters. Common practice. */
const OVER_RANGE = /^[+-]?\s*(o\.?l\.?|ovld?|over(load|range)?|open|inf(inity)?)$/i;

/** Prefixes of units. Source: SI. */
const PREFIX: Readonly<Record<string, number>> = {
  '': 1,
  n: 1e-9,
  u: 1e-6,
  µ: 1e-6,
  m: 1e-3,
  k: 1e3,
  K: 1e3,
  M: 1e6,
  G: 1e9,
};
const UNITS: readonly (readonly [unit: RegExp, of: 'V' | 'A' | 'Ω'])[] = [
  [/^(.?)V(?:olts?)?(?:\s*(?:DC|AC))?$/i, 'V'],
  [/^(.?)A(?:mps?)?(?:\s*(?:DC|AC))?$/i, 'A'],
  [/^(.?)(?:Ω|Ohms?)$/i, 'Ω'],
];

/**
 * The figure in an answer, in volts, amperes or ohms; Infinity where an ohmmeter or a diode test shows an open input.
 * @throws InstrumentProblem for what is no figure, for a unit of another function, and for an overload where a figure is needed.
 */
export const figureOf = (answer: string, query: string, quantity: Quantity): number =>
  readFigure(answer, query, quantity).value;

/** A figure with the step of its last digit, both in volts, amperes or ohms. */
export interface Figure {
  readonly value: number;
  readonly step: number;
}

/** As `figureOf`, with the step of the last digit. */
export function readFigure(answer: string, query: string, quantity: Quantity): Figure {
  const text = answer.trim();
  const open = quantity === 'Ω' || quantity === 'drop';
  if (OVER_RANGE.test(text)) return { value: overRange(open, query, answer), step: 0 };
  const [, digits, rest] = /^([+-]?\d+(?:[.,]\d+)?(?:[eE][+-]?\d+)?)\s*(\D.*)?$/.exec(text) ?? [];
  if (digits === undefined)
    throw new InstrumentProblem(`Expected a figure for ${query}; the instrument answered “${answer}”.`);
  const factor = factorOf(rest?.trim() ?? '', query, quantity, answer);
  const value = Number(digits.replace(',', '.')) * factor;
  const isOver = Math.abs(value) >= OVERLOAD || (open && Math.abs(value) >= OVERLOAD_OHM);
  return isOver ? { value: overRange(open, query, answer), step: 0 } : { value, step: lastDigit(digits) * factor };
}

/** One in the last digit of a figure as it is written. */
function lastDigit(digits: string): number {
  const [, decimals = '', exponent = '0'] = /^[+-]?\d+(?:[.,](\d+))?(?:[eE]([+-]?\d+))?$/.exec(digits)!;
  return 10 ** (Number(exponent) - decimals.length);
}

/**
 * The figure in a line that a meter sends by itself, where what follows it is one of the marks of the function wanted.
 * @param marks what follows the figure, by function, such as `V DC`; a prefix may stand before it.
 */
export function shownFigure(
  line: string,
  wanted: Quantity,
  marks: readonly (readonly [of: Quantity, mark: string])[],
): Figure {
  const found = marks
    .toSorted((a, b) => b[1].length - a[1].length)
    .flatMap(([of, mark]) => {
      const [, figure, prefix] = new RegExp(`^(\\S+?)\\s*([numkKMGµ]?)${tight(mark)}$`, 'i').exec(line.trim()) ?? [];
      return figure === undefined ? [] : [{ of, figure, prefix }];
    })
    .at(0);
  if (!found)
    throw new InstrumentProblem(
      `Expected a figure with its unit; the meter shows “${line}”. What it is of is not known.`,
    );
  if (found.of !== wanted)
    throw new InstrumentProblem(
      `Expected ${FUNCTION_WORDS[wanted]}; the meter shows “${line}”: it stands in ${FUNCTION_WORDS[found.of]}. Turn the dial.`,
    );
  const isOver = OVER_RANGE.test(found.figure);
  const unit = wanted === 'drop' ? 'V' : wanted;
  return readFigure(isOver ? found.figure : `${found.figure} ${found.prefix}${unit}`, 'its display', wanted);
}

const tight = (mark: string): string =>
  mark
    .split(/\s+/)
    .map((word) => word.replace(/[.*+?^${}()|[\]\\]/g, '\\$&'))
    .join('\\s*');

export const FUNCTION_WORDS: Readonly<Record<Quantity, string>> = {
  V: 'volts',
  A: 'amperes',
  Ω: 'ohms',
  drop: 'diode mode',
};

function overRange(open: boolean, query: string, answer: string): number {
  if (open) return Infinity;
  throw new InstrumentProblem(
    `Expected a figure for ${query}; the instrument is over its range (“${answer}”): choose a higher one.`,
  );
}

function factorOf(unit: string, query: string, quantity: Quantity, answer: string): number {
  if (unit === '') return 1;
  const wanted = quantity === 'drop' ? 'V' : quantity;
  for (const [form, of] of UNITS) {
    const [, prefix] = form.exec(unit) ?? [];
    if (prefix === undefined) continue;
    // In capitals an M is milli, but for ohms. Source: IEEE 488.2, suffix multipliers (from memory).
    const factor = prefix === 'M' && of !== 'Ω' ? PREFIX.m : PREFIX[prefix];
    if (of !== wanted)
      throw new InstrumentProblem(
        `Expected ${wanted} for ${query}; the instrument answered “${answer}”: it stands in another function.`,
      );
    if (factor !== undefined) return factor;
  }
  throw new InstrumentProblem(
    `Expected ${wanted} for ${query}; the instrument answered “${answer}”, a unit that is not known.`,
  );
}

/** Whether an output is on, as an instrument says it; anything but a clear answer is not known. */
export type OutputState = 'on' | 'off' | 'unknown';

export function outputStateOf(
  answer: string,
  onSays: readonly string[] = ['1', 'ON'],
  offSays: readonly string[] = ['0', 'OFF'],
): OutputState {
  const text = answer.trim().toUpperCase();
  const says = (words: readonly string[]): boolean =>
    words.some((w) => w.toUpperCase() === text || (isFigure(w) && isFigure(text) && Number(w) === Number(text)));
  const [on, off] = [says(onSays), says(offSays)];
  return on === off ? 'unknown' : on ? 'on' : 'off';
}

const isFigure = (text: string): boolean => /^[+-]?\d+(\.\d+)?$/.test(text);
