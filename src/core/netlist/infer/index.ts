import type { NetName } from '../../identities';
import { netsOf, type ForeignBoard, type ForeignPart } from '../foreign';
import { valueOf } from '../value';
import { isChip, isConnector, kindOf, type KindGuess } from './kinds';
import { groundRank, leafOf } from './names';
import { portsOf, type PortGuess } from './port';
import { railsOf, type RailGuess } from './rails';
import { wiringOf } from './wiring';

export type { KindGuess } from './kinds';
export type { PortGuess } from './port';
export type { RailGuess } from './rails';

/** What names, pin counts and topology say of a board, each with its reason. */
export interface Inference {
  readonly ground?: string;
  /** Why, where it is a guess. */
  readonly groundDoubt?: string;
  readonly ports: readonly PortGuess[];
  readonly rails: readonly RailGuess[];
  readonly kinds: ReadonlyMap<string, KindGuess>;
  readonly roleOf: (net: NetName) => 'ground' | 'power' | 'signal' | 'switch';
}

/** Share of all pads that a net without the name of ground must have to be taken for it. Engineering estimate. */
const GROUND_SHARE = 0.12;

/** Reads a board's make-up from names, pin counts and topology. Linear in pads, but for the rails that chips make. */
export function infer(board: ForeignBoard): Inference {
  const nets = netsOf(board);
  const { ground, groundDoubt } = groundOf(nets);
  const wiring = wiringOf(board);
  const ports = portsOf(board, wiring, ground);
  const rails = railsOf(wiring, ports, ground, (part) => valueOf(part.value));
  const kinds = new Map(board.parts.map((part) => [part.ref, kindAmong(part, ports, rails)]));
  const power = new Set(rails.map((r) => r.net));
  const switching = new Set(
    wiring.nets.filter((net) => {
      const parts = wiring.partsOn(net);
      return !power.has(net) && parts.some((p) => kindOf(p).kind === 'coil') && parts.some(isChip);
    }),
  );
  return {
    ground,
    groundDoubt,
    ports,
    rails,
    kinds,
    roleOf: (net) => (net === ground ? 'ground' : power.has(net) ? 'power' : switching.has(net) ? 'switch' : 'signal'),
  };
}

/** Ground: the plain name, else the likeliest name, else the net with the most pads. */
function groundOf(nets: ReadonlyMap<string, readonly unknown[]>): { ground?: string; groundDoubt?: string } {
  const ranked = [...nets]
    .map(([net, pads]) => ({ net, rank: groundRank(net), pads: pads.length }))
    .sort((a, b) => a.rank - b.rank || b.pads - a.pads);
  const [best] = ranked;
  if (!best) return {};
  if (best.rank === 0) return { ground: best.net };
  const most = ranked.reduce((a, b) => (b.pads > a.pads ? b : a));
  if (best.rank < 3) {
    const rival = ranked.filter((r) => r.rank < 3).length > 1 || most.net !== best.net;
    return rival
      ? { ground: best.net, groundDoubt: `${leafOf(best.net)} is the likeliest name of ground.` }
      : { ground: best.net };
  }
  const all = ranked.reduce((sum, r) => sum + r.pads, 0);
  return most.pads > GROUND_SHARE * all
    ? {
        ground: most.net,
        groundDoubt: `No net is named as ground; ${leafOf(most.net)} has the most pads, ${most.pads} of ${all}.`,
      }
    : {};
}

/** A chip's kind by what it was found to be: the controller of a port, its memory, what makes a rail. */
function kindAmong(part: ForeignPart, ports: readonly PortGuess[], rails: readonly RailGuess[]): KindGuess {
  const guess = kindOf(part);
  if (ports.some((p) => p.controller === part.ref)) return { kind: 'portController', sure: true };
  if (ports.some((p) => p.flash === part.ref)) return { kind: 'flash', sure: true };
  if (isChip(part) && !guess.sure && rails.some((r) => r.by === part.ref)) return { kind: 'converter', sure: true };
  if (isConnector(part) && !guess.sure) return { ...guess, sure: true };
  return guess;
}
