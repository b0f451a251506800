/**
 * What is usual round a port where nobody has measured yet: ranges to ground that hold 95 of 100 sound boards, unpowered, and
 * diode drops. Common practice, no source; narrowed by what is read.
 */
export interface UsualRange {
  /** Lowest and highest, ohm. */
  readonly ohm: readonly [number, number];
  /** Middle and half width of the diode drop, V. */
  readonly dropV: readonly [number, number];
}

export const USUAL = {
  bus: { ohm: [50e3, 1e6], dropV: [0.55, 0.15] },
  chargerInput: { ohm: [5e3, 500e3], dropV: [0.5, 0.2] },
  system: { ohm: [500, 50e3], dropV: [0.45, 0.25] },
  pack: { ohm: [500, 50e3], dropV: [0.45, 0.25] },
  controllerSupply: { ohm: [1e3, 50e3], dropV: [0.45, 0.25] },
  systemSupply: { ohm: [100, 20e3], dropV: [0.4, 0.25] },
} as const satisfies Readonly<Record<string, UsualRange>>;
export type UsualRail = keyof typeof USUAL;

/** Diode mode at signals of the port and between chips, V. */
export const USUAL_SIGNAL_DROP_V: readonly [number, number] = [0.45, 0.25];

/**
 * A load for each of `count` chips that share a net, so that the net as a whole reads in its range: parallel loads, their doubts
 * independent, narrow as 1/√n.
 */
export function usualLoad(
  { ohm: [low, high] }: UsualRange,
  count: number,
): { readonly ohm: number; readonly within: number } {
  const middle = Math.sqrt(low * high);
  return { ohm: tidy(middle * count), within: tidy(Math.sqrt(high / low) ** Math.sqrt(count)) };
}

/** Two figures are all that an estimate is worth. */
const tidy = (x: number): number => Number(x.toPrecision(2));
