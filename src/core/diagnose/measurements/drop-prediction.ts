import type { NetName, PartRef } from '../../identities';
import { groundNet, partByRef } from '../../board';
import { WITHIN_SDS } from '../../math';
import { normalDropV } from '../../port';
import type { CircuitModel } from '../circuit-model';
import type { Effect, Fault } from '../faults';
import { alternative, valuesOf, type Prediction } from '../prediction';
import { OBSERVATION } from './observation';
import { DROP_OPEN_V } from './scale';

/** Diode mode: spread of a normal drop, and what a short to ground reads, V. Common practice. */
const DROP_FLOOR_V = 0.012;
/** All drops of a day shift with the board's temperature and the meter: so much of the drop. Engineering estimate. */
const DROP_SHARE = 0.02;
const usualSpreadV = (dropV: number): number => Math.hypot(DROP_FLOOR_V, DROP_SHARE * dropV);
const DROP_SHORT_V = 0.02;
/** Below this a diode test shows a short, ohm. Common practice. */
export const DROP_SHORT_BELOW_OHM = 30;
/**
 * What a net without a stated drop reads, V: silicon input structures read 0.2 to 0.8 V, most of them low in that range. Common
 * practice.
 */
const USUAL_DROP = { volts: 0.45, withinV: 0.25 };

const OPEN = valuesOf(alternative(DROP_OPEN_V, DROP_FLOOR_V));

/**
 * Diode mode at a net.
 * @param contact of the port at which it is taken; null where it is taken on the board; undefined where the net comes to no port.
 */
export function dropOfNet(
  model: CircuitModel,
  net: NetName,
  contact: string | null | undefined,
  fault: Fault,
  absent: ReadonlySet<PartRef>,
): Prediction {
  const { board } = model;
  const { diodeWithinV = 0, lowByNature } = board.nets[net];
  const diodeV = normalDropV(board, net);
  const normal = diodeV ?? USUAL_DROP.volts;
  const doubtV = (diodeV === undefined ? USUAL_DROP.withinV : diodeWithinV) / WITHIN_SDS;
  const spreadV = (dropV: number): number => Math.hypot(usualSpreadV(dropV), doubtV);
  const isShorted = model.resistanceOhm(net, groundNet(board), fault, absent) < DROP_SHORT_BELOW_OHM && !lowByNature;
  if (isShorted) return valuesOf(alternative(DROP_SHORT_V, DROP_FLOOR_V));
  const isOpen = (e: Effect): boolean => e.kind === 'pinOpen' && e.net === net && (e.pin ?? contact) === contact;
  if (contact !== null && fault.effects.some(isOpen)) return OPEN;
  const by = OBSERVATION.diodeDrop;
  if (fault.effects.some((e) => e.kind === 'leak' && e.net === net))
    return valuesOf(alternative(by.leak.shareOfNormal * normal, 2 * spreadV(normal)));
  if (fault.effects.some((e) => e.kind === 'dirty' && e.net === net)) {
    const { dirty } = by;
    return valuesOf(
      alternative(normal, spreadV(normal), dirty.normal),
      alternative(normal + dirty.raisedByV, dirty.raisedSdV, dirty.raised),
    );
  }
  const { chips, cut } = model.behind(net, fault, absent);
  if (chips.length === 0) return cut ? OPEN : valuesOf(alternative(normal, spreadV(normal)));
  if (chips.every((ref) => absent.has(ref))) return OPEN;
  const damaged = fault.effects.some(
    (e) =>
      (e.kind === 'inputs' && chips.includes(e.ref)) ||
      (e.kind === 'ccDead' && chips.includes(e.ref) && model.isCcNet(net, e.side)),
  );
  if (!damaged) return valuesOf(alternative(normal, spreadV(normal)));
  const { damagedInputs } = by;
  return valuesOf(
    alternative(normal, spreadV(normal), damagedInputs.normal),
    alternative(DROP_OPEN_V, DROP_FLOOR_V, damagedInputs.open),
    alternative(normal + damagedInputs.raisedByV, damagedInputs.raisedSdV, damagedInputs.raised),
  );
}

/** Diode mode at one pin of a part: open where nothing is joined, nothing at ground. */
export function dropAtPin(
  model: CircuitModel,
  ref: PartRef,
  pin: string,
  contact: string | null,
  fault: Fault,
  absent: ReadonlySet<PartRef>,
): Prediction {
  const net = partByRef(model.board, ref)!.pins[pin];
  if (net === undefined) return OPEN;
  if (net === groundNet(model.board)) return valuesOf(alternative(0, DROP_FLOOR_V));
  const isOpenHere = (e: Effect): boolean => e.kind === 'jointOpen' && e.ref === ref && e.pin === pin;
  if (contact === null && fault.effects.some(isOpenHere)) return OPEN;
  return dropOfNet(model, net, contact, fault, absent);
}

/** No path at all. */
export const openDrop = (): Prediction => OPEN;
