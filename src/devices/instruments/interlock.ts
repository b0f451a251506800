import type { OutputState } from './answers';
import type { MeterQuantity } from './multimeter';

/** A source of power that is known at the bench, whatever its make; `lost` is one whose line broke. */
export interface Source {
  readonly name: string;
  state(): Promise<OutputState | 'lost'>;
}

/** Ohms and diode mode put the meter's own current through the board: any other source spoils the figure, or the meter. */
const isUnpowered = (quantity: MeterQuantity): boolean => quantity !== 'V';

/** Why nothing may be measured now, in a sentence; what is not known to be off counts as on. */
export async function powerInTheWay(quantity: MeterQuantity, sources: readonly Source[]): Promise<string | undefined> {
  if (!isUnpowered(quantity)) return undefined;
  for (const source of sources) {
    const state = await source.state().catch(() => 'lost' as const);
    if (state !== 'off') return STATE_WORDS[state](source.name);
  }
  return undefined;
}

const STATE_WORDS: Readonly<Record<'on' | 'unknown' | 'lost', (name: string) => string>> = {
  on: (name) => `Expected no power on the board for this reading; the output of ${name} is on. Switch it off first.`,
  unknown: (name) =>
    `Expected no power on the board for this reading; ${name} does not say whether its output is off. Switch it off there, and take the reading by hand.`,
  lost: (name) =>
    `Expected no power on the board for this reading; the line to ${name} is lost, and with it what it does. Switch it off there, connect it again or take it off the list.`,
};

/** Takes a reading between two looks at every source: one that was switched on meanwhile spoils it. */
export async function takeSafely<T>(
  quantity: MeterQuantity,
  sources: readonly Source[],
  read: () => Promise<T>,
): Promise<{ readonly value: T } | { readonly refused: string }> {
  const before = await powerInTheWay(quantity, sources);
  if (before !== undefined) return { refused: before };
  const value = await read();
  const after = await powerInTheWay(quantity, sources);
  return after === undefined ? { value } : { refused: `${after} The reading is not kept.` };
}
