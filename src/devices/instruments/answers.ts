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
export function figureOf(answer: string, query: string, quantity: Quantity): number {
  const text = answer.trim();
  const open = quantity === 'Ω' || quantity === 'drop';
  if (OVER_RANGE.test(text)) return overRange(open, query, answer);
  const [, digits, rest] = /^([+-]?\d+(?:[.,]\d+)?(?:[eE][+-]?\d+)?)\s*(\D.*)?$/.exec(text) ?? [];
  if (digits === undefined)
    throw new InstrumentProblem(`Expected a figure for ${query}; the instrument answered “${answer}”.`);
  const value = Number(digits.replace(',', '.')) * factorOf(rest?.trim() ?? '', query, quantity, answer);
  const isOver = Math.abs(value) >= OVERLOAD || (open && Math.abs(value) >= OVERLOAD_OHM);
  return isOver ? overRange(open, query, answer) : value;
}

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

export function outputStateOf(answer: string): OutputState {
  const text = answer.trim().toUpperCase();
  if (text === 'ON' || (/^[+]?\d+(\.\d+)?$/.test(text) && Number(text) === 1)) return 'on';
  if (text === 'OFF' || (/^[+-]?\d+(\.\d+)?$/.test(text) && Number(text) === 0)) return 'off';
  return 'unknown';
}
