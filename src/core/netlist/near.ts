import type { PartRef } from '../identities';
import type { ForeignBoard, ForeignPart } from './foreign';
import type { Inference, RailGuess } from './infer';
import { wiringOf } from './infer/wiring';

/** What of a large board matters to its ports: only of this is anything asked. */
export interface Near {
  readonly parts: ReadonlySet<PartRef>;
  readonly rails: readonly RailGuess[];
  /** Supplies further off, whose volts nothing says: they count as what pulls at the rails that feed them. */
  readonly railsBeyond: readonly RailGuess[];
}

/** Boards up to so many parts are asked about whole, as they are diagnosed whole. Engineering estimate. */
const MOST_WHOLE = 250;
/** A net with more parts than this is a bus or a rail: what hangs on it is not near for that. Engineering estimate. */
const MOST_ON_NET = 12;
/** From the chips of a port over signals to the next part, so many times. Engineering estimate. */
const STEPS = 2;

/**
 * The ports, their chips, what is linked to those by signals within two parts, and the rails that these stand on or that come from a
 * bus, with all that feeds them.
 * @returns undefined for a board of which all matters.
 */
export function nearOf(foreign: ForeignBoard, inference: Inference): Near | undefined {
  if (foreign.parts.length <= MOST_WHOLE) return undefined;
  const { ports, rails, ground, kinds } = inference;
  const wiring = wiringOf(foreign);
  const supplies = new Set(rails.map((r) => r.net));
  const named = new Set(ports.flatMap((p) => [p.connector, p.controller ?? '', p.flash ?? '']));
  const chips = foreign.parts.filter(
    (p) => named.has(p.ref) || ['chargeController', 'batteryConnector'].includes(kinds.get(p.ref)?.kind ?? ''),
  );
  const near = new Set<ForeignPart>(chips);
  const spreads = (net: string): boolean =>
    net !== ground && !supplies.has(net) && wiring.partsOn(net).length <= MOST_ON_NET;
  for (let step = 0; step < STEPS; step++)
    for (const part of [...near])
      for (const net of wiring.netsOf(part).filter(spreads)) for (const next of wiring.partsOn(net)) near.add(next);

  const byNet = new Map(rails.map((r) => [r.net, r]));
  const kept = new Set<RailGuess>();
  const keep = (rail: RailGuess | undefined): void => {
    if (!rail || kept.has(rail)) return;
    kept.add(rail);
    keep(rail.from === undefined ? undefined : byNet.get(rail.from));
  };
  const stoodOn = new Set(chips.flatMap((p) => wiring.netsOf(p)));
  for (const rail of rails) {
    const fromBus = rail.from !== undefined && byNet.get(rail.from)?.volts === 'bus';
    if (rail.volts !== undefined || stoodOn.has(rail.net) || fromBus) keep(rail);
  }
  const makers = new Set([...kept].flatMap((r) => [r.by ?? '', ...r.via]));
  for (const part of foreign.parts) if (makers.has(part.ref)) near.add(part);
  return {
    parts: new Set([...near].map((p) => p.ref)),
    rails: rails.filter((r) => kept.has(r)),
    railsBeyond: rails.filter((r) => !kept.has(r)),
  };
}
