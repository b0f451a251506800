import type { NetName } from '../../identities';

/** A net's name without its sheet: what stands behind the last slash. */
export const leafOf = (net: NetName): string => net.replace(/^.*\//, '') || net;

/** Names of ground, the plain one first. */
const GROUNDS: readonly RegExp[] = [
  /^gnd$/i,
  /^(?:ground|vss|0v|dgnd|gnd_?d|pgnd|gnd_?p|gndpwr|gnd_?sys)$/i,
  /^(?:agnd|gnda|gnd_.*|.*_gnd|earth|com)$/i,
];

/** How surely a name is that of ground: 0 the plain one, 3 none. */
export function groundRank(net: NetName): number {
  const leaf = leafOf(net).replace(/[{}~]/g, '');
  const rank = GROUNDS.findIndex((pattern) => pattern.test(leaf));
  return rank < 0 ? GROUNDS.length : rank;
}

const NOT_A_SUPPLY =
  /(?:^|[_.\-/])(?:en|enable|pg|pgood|pwrgd|ok|fb|sense|sns|det|detect|int|irq|alert|flt|fault|sel|ctl|ctrl|gate|adc|mon|div|ref(?:in)?|set|prog|comp|ilim|oc|stat)\d*(?:$|[_.\-/#])/i;

/** Volts that a name states: `+3V3`, `ldo_1v8`, `5V_SYS`, `P12V0`, `VDD_3.3`, `AON33`. Undefined where it states none. */
export function voltsByName(net: NetName): number | undefined {
  const leaf = leafOf(net);
  // A supply below ground has no place among the rails of the board format.
  if (leaf.startsWith('-')) return undefined;
  const infix =
    /(?:^|[^0-9a-z])(?:p|pp|vcc|vdd|v)?(\d{1,2})v(\d{1,2})(?![0-9a-z])|(?:^|[^0-9])(\d{1,2})v(\d)(?:[^0-9]|$)/i.exec(
      leaf,
    );
  if (infix) {
    const [whole, fraction] = infix[1] === undefined ? [infix[3], infix[4]] : [infix[1], infix[2]];
    return inRange(Number(`${whole}.${fraction}`));
  }
  const point = /(?:^|[^0-9a-z])v?(\d{1,2})p(\d{1,2})(?:v|$|[^0-9a-z])/i.exec(leaf);
  if (point) return inRange(Number(`${point[1]}.${point[2]}`));
  const plain =
    /(?:^|[^0-9a-z.])(?:p|pp)?(\d{1,2}(?:\.\d{1,2})?)v(?:$|[^0-9a-z])/i.exec(leaf) ??
    /^(?:p|pp)(\d{1,2})v(?:_|$)/i.exec(leaf);
  if (plain) return inRange(Number(plain[1]));
  const named = /^(?:[+]?v(?:cc|dd|bat|sys|io|core|a)?[a-z]{0,3}[_-]?)(\d\.\d{1,2})(?:v|$|_)/i.exec(leaf);
  if (named) return inRange(Number(named[1]));
  // Two digits behind letters such as AON or VDD: 33 is 3.3, 18 is 1.8.
  const whole = /^v(3|5|9)$/i.exec(leaf) ?? /^(?:chg|sys|vchg)(5|9)$/i.exec(leaf);
  if (whole) return Number(whole[1]);
  const digits = /^(?:\+?[a-z]{1,5}_?)(33|18|25|15|50)(?:$|_)/i.exec(leaf);
  return digits && /^(?:\+?(?:v|aon|pp|pd|ldo|vdd|vcc|sys))/i.test(leaf) ? inRange(Number(digits[1]) / 10) : undefined;
}

const LEAST_V = 0.5;
const MOST_V = 60;
const inRange = (volts: number): number | undefined => (volts >= LEAST_V && volts <= MOST_V ? volts : undefined);

/** Whether a net was named by a program after one of its pads. Common practice of layout programs, no source. */
export const isNamedByPad = (net: NetName): boolean => /^(?:net-\(|\$|unnamed|n\$)/i.test(leafOf(net));

/** Whether a name says that a net only speaks of a supply: its switch, its sense, its reference. */
export const isSignalName = (net: NetName): boolean =>
  NOT_A_SUPPLY.test(leafOf(net)) || /^v(?:ref|sense|sns|mon|fb|comp|det|set|id|adc)/i.test(leafOf(net));

/** Whether a name is that of a supply. */
export function isSupplyName(net: NetName): boolean {
  const leaf = leafOf(net).replace(/^[~{}]+/, '');
  if (groundRank(net) < GROUNDS.length || isSignalName(net)) return false;
  if (voltsByName(net) !== undefined || /^v\d{1,2}$/i.test(leaf)) return true;
  return (
    /^[+]?(?:v(?:bus|in|out|sys|bat|batt|cc|dd|ddio|io|core|aux|main|pwr|ss?b|usb|conn|chg|or|dc|m|s|p|a|reg|supply)|pwr|power|pp|bat|batt|sys|ldo|aon|chg|rail|dcin|dc_in|adapter|acin)(?:[^a-z]|$)/i.test(
      leaf,
    ) ||
    /^v(?:bus|in|sys|bat|cc|dd)[_a-z0-9+]*$/i.test(leaf) ||
    /(?:^|[_.\-])v(?:bus|in|out|sys|bat|cc|dd)(?:$|[_.\-+])/i.test(leaf)
  );
}

/** Names of the bus of a USB port. */
export const isBusName = (net: NetName): boolean =>
  !isSignalName(net) &&
  (/(?:^|[_.\-/])v_?bus(?:$|[_.\-\d/])/i.test(leafOf(net)) || /^usb.*v(?:bus|cc)?$/i.test(leafOf(net)));

/** Which CC line a name says, if any. */
export function ccByName(net: NetName): 1 | 2 | undefined {
  const found = /(?:^|[^a-z])(?:usb_?c?_?)?cc_?([12])(?![0-9])/i.exec(leafOf(net));
  return found ? (Number(found[1]) as 1 | 2) : undefined;
}
