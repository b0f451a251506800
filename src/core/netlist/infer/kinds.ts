import type { PartRef } from '../../identities';
import type { PartKind } from '../../board';
import type { ForeignPart } from '../foreign';

/** What a part is taken for, and whether designator or words leave no doubt. */
export interface KindGuess {
  readonly kind: PartKind;
  readonly sure: boolean;
}

/** What the letters of a designator usually mean. Source: IEEE 315, clause 22, and common practice; U, J and D are guesses. */
const BY_LETTERS: Readonly<Record<string, PartKind>> = {
  C: 'capacitor',
  CP: 'capacitor',
  R: 'resistor',
  RN: 'resistor',
  RS: 'resistor',
  RT: 'resistor',
  L: 'coil',
  FB: 'coil',
  F: 'fuse',
  FL: 'lineFilter',
  D: 'esdArray',
  TVS: 'clampDiode',
  ZD: 'clampDiode',
  Q: 'mosfet',
  M: 'mosfet',
  T: 'mosfet',
  Y: 'crystal',
  X: 'crystal',
  J: 'connector',
  P: 'connector',
  CN: 'connector',
  CON: 'connector',
  USB: 'connector',
  BT: 'batteryConnector',
  BAT: 'batteryConnector',
  U: 'converter',
  IC: 'converter',
};

/** Words in a value or a footprint that say more than the designator. */
const BY_WORDS: readonly (readonly [RegExp, PartKind])[] = [
  [/\b(?:nor|flash|eeprom|w25|25q|24c)\b|\bspi (?:nor|flash)/i, 'flash'],
  [/\b(?:pd|type-?c|usb-?c|port) ?(?:pd )?(?:controller|ctrl)|\bpd ctrl/i, 'portController'],
  [/\bcharg(?:er|e controller|ing)\b/i, 'chargeController'],
  [/\b(?:ldo|buck|boost|dc-?dc|regulator|converter|pmic|step-?(?:down|up))\b/i, 'converter'],
  [/\b(?:mux|redriver|retimer|switch ?matrix)\b/i, 'mux'],
  [/\b(?:mcu|cpu|soc|processor|microcontroller)\b/i, 'processor'],
  [/\b(?:sensor|imu|accel)/i, 'sensorHub'],
  [/\besd\b/i, 'esdArray'],
  [/\b(?:tvs|clamp|zener)\b/i, 'clampDiode'],
  [/\b(?:[pn]-?(?:mos|fet|ch)|mosfet|fet)\b/i, 'mosfet'],
  [/\b(?:common ?mode|choke|cmc|line ?filter)\b/i, 'lineFilter'],
  [/\b(?:fuse|ptc|polyfuse)\b|^\d+(?:\.\d+)? ?A$/i, 'fuse'],
  [/\b(?:inductor|ferrite|bead)\b/i, 'coil'],
  [/\b(?:crystal|oscillator|xtal|\d+ ?mhz)\b/i, 'crystal'],
  [/\bbatt?(?:ery)?\b/i, 'batteryConnector'],
];
const CHIP: ReadonlySet<PartKind> = new Set([
  'portController',
  'chargeController',
  'converter',
  'mux',
  'processor',
  'sensorHub',
  'flash',
]);

export const lettersOf = (ref: PartRef): string => /^[A-Za-z]+/.exec(ref)?.[0].toUpperCase() ?? '';

/** Kind by designator and words; topology may say otherwise of chips. */
export function kindOf(part: ForeignPart): KindGuess {
  const letters = lettersOf(part.ref);
  const by = BY_LETTERS[letters] ?? (isBare(part) ? undefined : BY_LETTERS[letters[0] ?? '']);
  const words = `${part.value} ${part.footprint.replace(/_/g, ' ')}`;
  const said = BY_WORDS.find(([pattern]) => pattern.test(words))?.[1];
  if (by === undefined) return { kind: said ?? 'connector', sure: false };
  if (CHIP.has(by))
    return said !== undefined && CHIP.has(said) ? { kind: said, sure: true } : { kind: by, sure: false };
  if (by === 'esdArray') {
    if (said === 'clampDiode') return { kind: 'clampDiode', sure: true };
    // An array has a line on each of several pins; two pins are a clamp.
    return new Set(part.pads.map((p) => p.pin)).size > 2
      ? { kind: 'esdArray', sure: said === 'esdArray' }
      : { kind: 'clampDiode', sure: false };
  }
  if (by === 'connector' && said === 'batteryConnector') return { kind: 'batteryConnector', sure: true };
  if (by === 'coil' && said === 'lineFilter') return { kind: 'lineFilter', sure: true };
  return { kind: by, sure: true };
}

/** Test points, holes, marks for placing machines: nothing that has a kind. */
export const isBare = (part: ForeignPart): boolean => /^(?:TP|MH|H|HS|FID|MP|ST)$/.test(lettersOf(part.ref));

export const isChip = (part: ForeignPart): boolean => /^(?:U|IC)$/.test(lettersOf(part.ref));
export const isConnector = (part: ForeignPart): boolean => /^(?:J|P|CN|CON|USB|X)$/.test(lettersOf(part.ref));
