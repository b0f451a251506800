/** A pad as a picture or a person tells it. */
export interface SeenPad {
  readonly pin: string;
  readonly state: 'even' | 'lifted' | 'uneven';
}

export interface PadLook {
  /** Nothing is left to do on the pads that are there. */
  readonly holds: boolean;
  readonly headline: string;
  /** What to do, worst first. */
  readonly reasons: readonly string[];
}

/** What a look at the pads of a cleaned site means. @param bridges neighbours with solder between them, by name. */
export function judgePadLook(pads: readonly SeenPad[], bridges: readonly (readonly [string, string])[]): PadLook {
  const of = (state: SeenPad['state']): string[] => pads.filter((p) => p.state === state).map((p) => p.pin);
  const [lifted, uneven] = [of('lifted'), of('uneven')];
  const reasons = [
    lifted.length > 0 &&
      `${named(lifted)}: no tinned copper, lifted or bare; touch with a needle, then enter as lifted`,
    bridges.length > 0 && `Solder from ${bridges.map((b) => b.join(' to ')).join(', ')}: draw it off`,
    uneven.length > 0 && `${named(uneven)}: a lump or a bare patch; flux, and level again`,
  ].filter((r) => r !== false);
  const counts = [
    lifted.length > 0 && `${lifted.length} gone`,
    bridges.length > 0 && `${bridges.length} ${bridges.length === 1 ? 'bridge' : 'bridges'}`,
    uneven.length > 0 && `${uneven.length} uneven`,
  ].filter((c) => c !== false);
  return {
    holds: bridges.length + uneven.length + lifted.length === 0,
    headline: counts.length === 0 ? `All ${pads.length} pads there and level` : `Pads: ${counts.join(', ')}`,
    reasons,
  };
}

const MOST_NAMED = 8;

const named = (pins: readonly string[]): string =>
  pins.length <= MOST_NAMED
    ? pins.join(', ')
    : `${pins.slice(0, MOST_NAMED).join(', ')} and ${pins.length - MOST_NAMED} more`;
