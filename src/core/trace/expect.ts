import type { Port } from '../board';

/** A charger as the bench knows it. */
export interface Charger {
  readonly name: string;
  /** Fixed offers, volts and amps at most. */
  readonly offers: readonly { readonly volts: number; readonly amps: number }[];
}

export const CHARGERS: readonly Charger[] = [
  { name: 'small, 5 V 1 A', offers: [{ volts: 5, amps: 1 }] },
  { name: '10 W, 5 V 2 A', offers: [{ volts: 5, amps: 2 }] },
  { name: '45 W', offers: [5, 9, 15].map((volts) => ({ volts, amps: 3 })).concat({ volts: 20, amps: 2.25 }) },
  { name: '65 W', offers: [5, 9, 15].map((volts) => ({ volts, amps: 3 })).concat({ volts: 20, amps: 3.25 }) },
];

export const PACK_STATES = ['partly', 'flat', 'full', 'out'] as const;
export type PackState = (typeof PACK_STATES)[number];

/** What a healthy device shows with this charger and pack. */
export interface ExpectedDraw {
  readonly volts: number;
  readonly amps: readonly [number, number];
  readonly words: string;
}

/** A device takes at most this share of what a charger offers (0.93 of 1 A, 1.9 of 2 A; common practice). */
const SHARE_OF_OFFER = 0.96;
/** A deeply flat pack is charged with about a tenth of an ampere first. Common practice. */
const PRE_CHARGE_A: readonly [number, number] = [0.06, 0.16];
/** Without a pack, or with a full one, a device draws next to nothing up to its own use. Common practice. */
const NO_CHARGE_W: readonly [number, number] = [0, 5];

/** The healthy window from the charger's own offers, the pack's state and the board file. */
export function expectDraw(port: Port, charger: Charger, pack: PackState): ExpectedDraw {
  const usable = charger.offers.filter((o) => o.volts <= port.designV + 0.5);
  const offer = usable.reduce((best, o) => (o.volts > best.volts ? o : best));
  const limit = offer.amps * SHARE_OF_OFFER;
  const scale = port.designV / offer.volts;
  const charging: [number, number] = [
    Math.min(port.healthyA[0] * scale, 0.85 * limit),
    Math.min(port.healthyA[1] * scale, limit),
  ];
  const words = `${offer.volts} V from the ${charger.name} charger`;
  switch (pack) {
    case 'partly':
      return { volts: offer.volts, amps: charging, words };
    case 'flat':
      return { volts: offer.volts, amps: PRE_CHARGE_A, words: `${words}, pre-charge of a flat pack` };
    case 'full':
    case 'out':
      return {
        volts: offer.volts,
        amps: [NO_CHARGE_W[0], Math.min(limit, NO_CHARGE_W[1] / offer.volts)],
        words: `${words}, ${pack === 'out' ? 'pack out' : 'pack full'}`,
      };
  }
}
