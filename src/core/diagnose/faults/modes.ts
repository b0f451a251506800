import type { NetName } from '../../identities';
import { groundNet, type Board, type Part } from '../../board';
import { SHORT_OHM, faultOf, type Effect, type Fault } from './fault';

/** Fault modes that several kinds of parts share. */

/** Several supplies shorted at once against one of them alone. Engineering estimate. */
const SEVERAL_SHARE = 0.4;

/** A pad that came off with the part, against other modes. Engineering estimate. */
const PAD_LIFTED_WEIGHT = 0.1;

export const netsOf = (board: Board, part: Part): string[] => {
  const ground = groundNet(board);
  return [...new Set(Object.values(part.pins))].filter((net) => net !== ground);
};

export const shunt = (part: Part, net: NetName, ohm = SHORT_OHM): Effect => ({ kind: 'shunt', net, ohm, at: part.ref });

export const bridge = (part: Part, netA: string, netB: string): Effect => ({
  kind: 'bridge',
  netA,
  netB,
  ohm: SHORT_OHM,
  at: part.ref,
});

/**
 * Shorts inside a chip: at one of its supplies, or at several. Several shorted capacitors round one chip mean that chip.
 * @param pairs true where every two of its supplies short together too.
 */
export function shortsOfSupplies(part: Part, weight: number, { pairs }: { readonly pairs: boolean }): Fault[] {
  const nets = Object.keys(part.loadsOhm);
  const twos = pairs ? nets.flatMap((a, i) => nets.slice(i + 1).map((b) => [a, b])) : [];
  const several = nets.length > 1 ? [nets, ...twos.filter((pair) => pair.length < nets.length)] : [];
  const short = (list: readonly string[], share: number): Fault =>
    faultOf(part, `short/${list.join('+')}`, `${list.join(' and ')} shorted inside`, share * weight, [
      ...list.map((net) => shunt(part, net)),
      { kind: 'dead', ref: part.ref },
    ]);
  return [...nets.map((net) => short([net], 1)), ...several.map((list) => short(list, SEVERAL_SHARE))];
}

/** A short from each of its nets to ground. */
export const shortsToGround = (board: Board, part: Part, weight: number): Fault[] =>
  netsOf(board, part).map((net) => shortToGround(part, net, weight));

export const shortToGround = (part: Part, net: NetName, weight: number): Fault =>
  faultOf(part, `short/${net}`, `${net} shorted to ground`, weight, [shunt(part, net)]);

export const dead = (part: Part, weight: number): Fault =>
  faultOf(part, 'dead', 'dead inside', weight, [{ kind: 'dead', ref: part.ref }]);

/** Dead with its inputs gone: unlike a chip that died inside, diode mode shows it. */
export const blown = (part: Part, weight: number): Fault =>
  faultOf(part, 'blown', 'dead, its inputs gone', weight, [
    { kind: 'dead', ref: part.ref },
    { kind: 'inputs', ref: part.ref },
  ]);

export const open = (part: Part, element: string, mode: string, words: string, weight: number): Fault =>
  faultOf(part, mode, words, weight, [{ kind: 'open', element, ref: part.ref }]);

/** A pad that came off with the part: its load is missing, and the part does not work. */
export const liftedPads = (part: Part): Fault[] =>
  Object.keys(part.loadsOhm).map((net) => ({
    ...faultOf(part, `pad/${net}`, `its ${net} pad lifted`, PAD_LIFTED_WEIGHT, [
      { kind: 'open', element: `${part.ref}~${net}`, ref: part.ref },
      { kind: 'dead', ref: part.ref },
    ]),
    story: 'earlierRepair',
  }));
