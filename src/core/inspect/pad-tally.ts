import type { PadInspection } from './inspect-pads';
import type { PadScene } from './pad-scene';

/** What an inspection of pads got right and wrong of a drawn site, added up over sites. */
export interface PadTally {
  readonly pads: number;
  readonly lifted: Found;
  readonly uneven: Found;
  readonly bridged: Found;
}

export interface Found {
  readonly there: number;
  readonly found: number;
  readonly false: number;
}

const NONE: Found = { there: 0, found: 0, false: 0 };
export const NO_PAD_TALLY: PadTally = { pads: 0, lifted: NONE, uneven: NONE, bridged: NONE };

/** Holds an inspection against the truth. A picture in which nothing was found counts every defect as missed. */
export function talliedPads(tally: PadTally, scene: PadScene, seen: PadInspection | undefined): PadTally {
  const named = (list: readonly (readonly [number, number])[]): string[] => list.map(([a, b]) => `${a} ${b}`);
  const at = (isOne: (i: number) => boolean): string[] => scene.states.flatMap((_, i) => (isOne(i) ? [String(i)] : []));
  const told = (verdict: string): string[] => at((i) => seen?.pads[i].verdict === verdict);
  return {
    pads: tally.pads + scene.states.length,
    lifted: added(
      tally.lifted,
      at((i) => scene.states[i] === 'lifted'),
      told('lifted'),
    ),
    uneven: added(
      tally.uneven,
      at((i) => scene.states[i] === 'lump' || scene.states[i] === 'bare'),
      told('uneven'),
    ),
    bridged: added(tally.bridged, named(scene.bridges.map(({ a, b }) => [a, b] as const)), named(seen?.bridges ?? [])),
  };
}

function added(sum: Found, truth: readonly string[], told: readonly string[]): Found {
  const [is, says] = [new Set(truth), new Set(told)];
  return {
    there: sum.there + is.size,
    found: sum.found + truth.filter((k) => says.has(k)).length,
    false: sum.false + told.filter((k) => !is.has(k)).length,
  };
}
