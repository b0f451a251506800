/** What a column's figures are of. */
export type Quantity =
  | 'time'
  | 'voltage'
  | 'current'
  | 'power'
  | 'energy'
  | 'charge'
  | 'temperature'
  | 'resistance'
  | 'length'
  | 'frequency';

/** A unit as it was written: figures times `scale` plus `offset` are in the base unit. */
export interface Unit {
  readonly quantity: Quantity;
  /** The base unit: s, V, A, W, Wh, Ah, °C, Ω, mm, Hz. */
  readonly base: string;
  readonly scale: number;
  readonly offset: number;
  /** As it is usually written, such as mV. */
  readonly written: string;
}

const BASE: Readonly<Record<Quantity, string>> = {
  time: 's',
  voltage: 'V',
  current: 'A',
  power: 'W',
  energy: 'Wh',
  charge: 'Ah',
  temperature: '°C',
  resistance: 'Ω',
  length: 'mm',
  frequency: 'Hz',
};

/** Prefixes. Source: SI brochure, 9th edition, table 7. */
const PREFIX: Readonly<Record<string, number>> = {
  p: 1e-12,
  n: 1e-9,
  u: 1e-6,
  µ: 1e-6,
  μ: 1e-6,
  m: 1e-3,
  '': 1,
  k: 1e3,
  K: 1e3,
  M: 1e6,
  G: 1e9,
};
const PREFIX_WORDS: Readonly<Record<string, number>> = { nano: 1e-9, micro: 1e-6, milli: 1e-3, kilo: 1e3, mega: 1e6 };

const SYMBOLS: Readonly<Record<string, Quantity>> = {
  V: 'voltage',
  A: 'current',
  W: 'power',
  Wh: 'energy',
  Ah: 'charge',
  Ω: 'resistance',
  R: 'resistance',
  Hz: 'frequency',
  s: 'time',
};
const WORDS: Readonly<Record<string, Quantity>> = {
  volt: 'voltage',
  amp: 'current',
  ampere: 'current',
  watt: 'power',
  ohm: 'resistance',
  second: 'time',
  sekunde: 'time',
  sec: 'time',
  sek: 'time',
  hertz: 'frequency',
};
/** Units that carry no prefix, with what makes the base unit of them. */
const PLAIN: Readonly<Record<string, readonly [Quantity, number, number]>> = {
  min: ['time', 60, 0],
  mins: ['time', 60, 0],
  minute: ['time', 60, 0],
  minutes: ['time', 60, 0],
  h: ['time', 3600, 0],
  hr: ['time', 3600, 0],
  hrs: ['time', 3600, 0],
  hour: ['time', 3600, 0],
  hours: ['time', 3600, 0],
  minuten: ['time', 60, 0],
  stunden: ['time', 3600, 0],
  day: ['time', 86400, 0],
  days: ['time', 86400, 0],
  msec: ['time', 1e-3, 0],
  msecs: ['time', 1e-3, 0],
  usec: ['time', 1e-6, 0],
  secs: ['time', 1, 0],
  celsius: ['temperature', 1, 0],
  fahrenheit: ['temperature', 5 / 9, -160 / 9],
  kelvin: ['temperature', 1, -273.15],
  mm: ['length', 1, 0],
  millimeter: ['length', 1, 0],
  millimeters: ['length', 1, 0],
  cm: ['length', 10, 0],
  mil: ['length', 0.0254, 0],
  mils: ['length', 0.0254, 0],
  thou: ['length', 0.0254, 0],
  in: ['length', 25.4, 0],
  inch: ['length', 25.4, 0],
  inches: ['length', 25.4, 0],
  um: ['length', 1e-3, 0],
  µm: ['length', 1e-3, 0],
  micron: ['length', 1e-3, 0],
};
const DEGREES: Readonly<Record<string, readonly [number, number]>> = {
  c: [1, 0],
  f: [5 / 9, -160 / 9],
  k: [1, -273.15],
};
/** The degree sign, what stands for it, and what is left of it when its bytes were read in another encoding. */
const DEGREE = /^(?:Â°|Â|°|º|˚|ø|deg(?:rees?)?\.?\s*|grad\s*|�)\s*([CFK])$/i;

const unit = (quantity: Quantity, scale: number, written: string, offset = 0): Unit => ({
  quantity,
  base: BASE[quantity],
  scale,
  offset,
  written,
});

/**
 * A unit by its symbol or word: `mV`, `millivolts`, `°F`, `degC`, `ms`. A lone C, F or K is a temperature; M before V, A and
 * s is milli, as capitals-only headers write it, since no bench sees a megavolt. Undefined for anything else.
 */
export function unitOf(text: string): Unit | undefined {
  const clean = text
    .trim()
    .replace(/\u2126/g, 'Ω')
    .replace(/\.$/, '');
  if (clean === '' || clean.length > 16) return undefined;
  const degree = DEGREE.exec(clean) ?? /^([CFK])$/.exec(clean);
  if (degree) {
    const letter = degree[1].toUpperCase();
    const [scale, offset] = DEGREES[letter.toLowerCase()];
    return unit('temperature', scale, letter === 'K' ? 'K' : `°${letter}`, offset);
  }
  const plain = PLAIN[clean.toLowerCase()];
  if (plain && Object.hasOwn(PLAIN, clean.toLowerCase())) return unit(plain[0], plain[1], clean, plain[2]);
  return bySymbol(clean) ?? byWord(clean.toLowerCase());
}

function bySymbol(text: string): Unit | undefined {
  const found = /^([pnuµμmkKMG]?)(Ah|Wh|Hz|V|A|W|Ω|s|R)(?:dc|ac|rms)?$/.exec(text) ?? capitals(text);
  if (!found) return undefined;
  const quantity = SYMBOLS[found[2]];
  // "R" is the resistance's only where a prefix or nothing stands before it: values such as 4R7 are no units.
  return unit(quantity, PREFIX[found[1]], text);
}

/** Small or capital letters throughout: `mv`, `MA`, `S`, `AH`. */
function capitals(text: string): readonly [string, string, string] | undefined {
  const found = /^([mukn]?)(v|a|w|ah|wh|hz|s)$/.exec(text.toLowerCase());
  if (!found) return undefined;
  const symbol = { v: 'V', a: 'A', w: 'W', ah: 'Ah', wh: 'Wh', hz: 'Hz', s: 's' }[found[2]]!;
  return [text, found[1], symbol];
}

function byWord(text: string): Unit | undefined {
  const found =
    /^(nano|micro|milli|kilo|mega)?[- ]?(volt|ampere|amp|watt|ohm|second|sekunde|sec|sek|hertz)(?:e?s|n)?$/.exec(text);
  if (!found) return undefined;
  return unit(WORDS[found[2]], found[1] ? PREFIX_WORDS[found[1]] : 1, text);
}

/** Words before which a letter is a name and no unit: channel A, type K. */
const NAMING =
  /(?:^|[\s_])(?:ch|chan|channel|kanal|port|phase|type|typ|tc|thermocouple|side|line|pin|sensor|probe|group|no|nr)\.?$/i;

/** Words that are a column's whole name and its unit: seconds since the start in another length. */
const LENGTHS_OF_TIME = /^(?:minutes?|minuten|hours?|hrs|stunden|msecs?|millisec(?:ond)?s?)$/i;

/**
 * A column's name and its unit, where the header says one: `Voltage (mV)`, `current_a`, `U/V`, `T1 [°C]`, `Time, ms`.
 * @param beside the names of the same header: `min` is the least where a `max` stands beside it, minutes else.
 */
export function headerOf(
  text: string,
  beside: readonly string[] = [],
): { readonly name: string; readonly unit?: Unit } {
  const clean = text.trim();
  const bracket = /^(.*?)\s*[([{<]\s*([^)\]}>]*?)\s*[)\]}>]\s*:?$/.exec(clean);
  if (bracket) {
    const inner = unitOf(bracket[2]) ?? unitOf(bracket[2].split(/[\s,;]/)[0]);
    if (inner) return { name: bracket[1] || bracket[2], unit: inner };
    const outer = headerOf(bracket[1]);
    return outer.unit ? outer : { name: clean };
  }
  const tail = /^(.*?[^\s_/,.:-])(?:\s+in\s+|\s*[_/,:]\s*|\s+-?\s*|\.)([A-Za-zµμΩΩ°º˚ÂøC]+)$/.exec(clean);
  if (tail && !NAMING.test(tail[1])) {
    const unit = unitOf(tail[2]);
    // One letter after a space may be a name; after a slash, a comma or an underscore it is a unit.
    const certain = unit && !(/^[kKR]$/.test(tail[2]) && !/[_/,]\s*[kK]$/.test(clean));
    if (certain) return { name: tail[1], unit };
  }
  if (/^mins?$/i.test(clean) && beside.some((name) => /max/i.test(name))) return { name: clean };
  if (/^mins?$/i.test(clean) || LENGTHS_OF_TIME.test(clean)) return { name: clean, unit: unitOf(clean) };
  const lone = /^(?:m|u|µ|k)?(?:V|A|W|Ah|Wh|s|Hz)$|^ms$|^[°º˚][CF]$|^deg ?[CF]$/.exec(clean)
    ? unitOf(clean)
    : undefined;
  return lone ? { name: clean, unit: lone } : { name: clean };
}
