import type { NetName } from '../../identities';
import { groundNet, padsOf, type Board } from '../../board';
import { SHORT_OHM, type Effect, type Fault } from './fault';

/** Faults that belong to the board rather than to one part: bridges, cracked traces, long screws. */

/** Relative odds against the fault modes of parts. Engineering estimates. */
const WEIGHT = { solderBridge: 0.03, traceCrack: 0.1, screwThrough: 0.1 };

/** Solder can bridge pads of two parts that lie this close, mm. Engineering estimate. */
const BRIDGE_REACH_MM = 1;
/** A screw of the wrong length pierces what lies nearest to it, mm. Engineering estimate. */
const SCREW_REACH_MM = 4;

/** Solder bridges between neighbours, from the geometry: pads of two parts within a bridge's reach. */
export function solderBridges(board: Board): Fault[] {
  const ground = groundNet(board);
  const pads = board.parts.flatMap((part) =>
    padsOf(board, part)
      .filter((pad) => part.pins[pad.pin] !== undefined)
      .map((pad) => ({ ...pad, part, net: part.pins[pad.pin] })),
  );
  const found = new Map<string, Fault>();
  for (const [a, b] of neighbours(pads)) {
    if (a.part.ref === b.part.ref || a.net === b.net || a.part.side !== b.part.side) continue;
    const [small, other] = Object.keys(a.part.pins).length <= Object.keys(b.part.pins).length ? [a, b] : [b, a];
    const nets = [a.net, b.net].sort();
    const id = `${small.part.ref}/solder/${other.part.ref}/${nets.join('-')}`;
    const effect: Effect = nets.includes(ground)
      ? { kind: 'shunt', net: nets.find((n) => n !== ground)!, ohm: SHORT_OHM, at: small.part.ref }
      : { kind: 'bridge', netA: nets[0], netB: nets[1], ohm: SHORT_OHM, at: small.part.ref };
    found.set(id, {
      id,
      ref: small.part.ref,
      label: `${small.part.ref} ${small.part.what}, solder bridge to ${other.part.ref}, ${nets.join(' to ')}`,
      weight: WEIGHT.solderBridge,
      effects: [effect, { kind: 'visible', ref: small.part.ref, as: 'bridge' }, ...joinedCc(board, nets)],
      mendedBy: { kind: 'part', ref: small.part.ref },
      story: 'earlierRepair',
    });
  }
  return [...found.values()];
}

/** Pads within a bridge's reach of each other, by a sweep from left to right; pairs in the order of the list. */
function neighbours<T extends Box>(pads: readonly T[]): [T, T][] {
  const leftMm = (p: Box): number => p.xMm - p.wMm / 2;
  const sweep = pads.map((_, i) => i).sort((i, j) => leftMm(pads[i]) - leftMm(pads[j]));
  const near: [number, number][] = [];
  sweep.forEach((i, at) => {
    const endMm = pads[i].xMm + pads[i].wMm / 2 + BRIDGE_REACH_MM;
    for (let k = at + 1; k < sweep.length && leftMm(pads[sweep[k]]) <= endMm; k++) {
      if (gapMm(pads[i], pads[sweep[k]]) <= BRIDGE_REACH_MM) near.push(i < sweep[k] ? [i, sweep[k]] : [sweep[k], i]);
    }
  });
  return near.sort((a, b) => a[0] - b[0] || a[1] - b[1]).map(([i, j]) => [pads[i], pads[j]]);
}

/** CC lines joined with each other: the charger sees both pulled down and does not begin to talk. */
const joinedCc = (board: Board, nets: readonly NetName[]): Effect[] =>
  board.ports
    .filter((port) => port.sides.every((s) => nets.includes(s.ccNet)))
    .flatMap((port) => port.sides.map((s): Effect => ({ kind: 'ccDead', ref: port.controller, side: s.side })));

interface Box {
  readonly xMm: number;
  readonly yMm: number;
  readonly wMm: number;
  readonly hMm: number;
}

function gapMm(a: Box, b: Box): number {
  const dx = Math.max(0, Math.abs(a.xMm - b.xMm) - (a.wMm + b.wMm) / 2);
  const dy = Math.max(0, Math.abs(a.yMm - b.yMm) - (a.hMm + b.hMm) / 2);
  return Math.hypot(dx, dy);
}

/** Inner traces that can crack: each rail that comes from somewhere else on the board. */
export const traceCracks = (board: Board): Fault[] =>
  board.rails
    .filter((r) => r.feeds.some((f) => f.from !== null))
    .map((r) => ({
      id: `${r.id}/crack`,
      ref: r.id,
      label: `Inner trace to ${r.id}, cracked`,
      weight: WEIGHT.traceCrack,
      effects: [{ kind: 'cut', rail: r.id }],
      mendedBy: { kind: 'rail', rail: r.id },
      story: 'bend',
    }));

/** Screws of the wrong length, each with the net that lies nearest to it. */
export function longScrews(board: Board): Fault[] {
  const ground = groundNet(board);
  return board.screws.flatMap((screw): Fault[] => {
    const [near] = board.parts
      .flatMap((part) => padsOf(board, part).map((pad) => ({ pad, net: part.pins[pad.pin] })))
      .filter(({ net }) => net !== undefined && net !== ground)
      .map(({ pad, net }) => ({ net, mm: Math.hypot(pad.xMm - screw.xMm, pad.yMm - screw.yMm) }))
      .sort((a, b) => a.mm - b.mm);
    if (!near || near.mm > SCREW_REACH_MM) return [];
    return [
      {
        id: `${screw.id}/through/${near.net}`,
        ref: screw.id,
        label: `Screw ${screw.id} too long, ${near.net} pierced to ground`,
        weight: WEIGHT.screwThrough,
        effects: [{ kind: 'shunt', net: near.net, ohm: SHORT_OHM, at: screw.id }],
        mendedBy: { kind: 'screw', screw: screw.id },
        story: 'earlierRepair',
      },
    ];
  });
}
