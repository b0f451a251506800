/** Prefixes in values, the letter in the place of the decimal sign included. Source: IEC 60062, and its usual spellings. */
const PREFIX: Readonly<Record<string, number>> = {
  p: 1e-12,
  n: 1e-9,
  u: 1e-6,
  µ: 1e-6,
  μ: 1e-6,
  m: 1e-3,
  r: 1,
  '': 1,
  k: 1e3,
  M: 1e6,
  G: 1e9,
};
const scaleOf = (letter: string): number | undefined =>
  PREFIX[letter] ??
  PREFIX[
    letter === 'K'
      ? 'k'
      : letter === 'U'
        ? 'u'
        : letter === 'N'
          ? 'n'
          : letter === 'P'
            ? 'p'
            : letter === 'R'
              ? 'r'
              : '-'
  ];

/**
 * The figure of a value in the base unit: `4R7`, `R010`, `10K 1%`, `49R9`, `0R`, `4k7`, `100kΩ`, `100n`, `2u2`, `10uF/16V`.
 * Tolerance, voltage and package behind it are left out. Undefined where it is no value.
 */
export function valueOf(text: string): number | undefined {
  const first = text
    .trim()
    .replace(/,(?=\d)/, '.')
    .split(/[\s/;,±]+/)[0]
    .replace(/(?:ohms?|Ω|Ω|F|H|Hz)$/i, '');
  if (first === '') return undefined;
  const leading = /^([RrpPnNuUµμmkKMG])(\d+)$/.exec(first);
  if (leading) {
    const scale = scaleOf(leading[1]);
    return scale === undefined ? undefined : Number(`0.${leading[2]}`) * scale;
  }
  const infix = /^(\d+)([RrpPnNuUµμmkKMGE])(\d+)$/.exec(first);
  if (infix) {
    const scale = infix[2] === 'E' ? 1 : scaleOf(infix[2]);
    return scale === undefined ? undefined : Number(`${infix[1]}.${infix[3]}`) * scale;
  }
  const plain = /^(\d+(?:\.\d+)?|\.\d+)([RrpPnNuUµμmkKMGE]?)$/.exec(first);
  if (!plain) return undefined;
  const scale = plain[2] === 'E' ? 1 : scaleOf(plain[2]);
  return scale === undefined ? undefined : Number(plain[1]) * scale;
}

/** Places that are left empty by the bill of material. Common practice, no source. */
export const isNotFitted = (text: string): boolean =>
  /\b(?:DNP|DNF|DNI|NP|NF|do not (?:populate|place|fit)|no ?pop|not fitted)\b/i.test(text.replace(/_/g, ' '));
