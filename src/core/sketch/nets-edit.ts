import type { NetName, PartRef } from '../identities';
import {
  groundNet,
  landsOf,
  named,
  netNamed,
  partByRef,
  partNamed,
  pinNamed,
  railOfNet,
  type Board,
  type Part,
} from '../board';
import { fail, ok, type Result } from '../result';
import type { Node } from './board-edit';
import { SIGNAL, changed } from './known';

/** What was found to be one: two pins, a pin and a net, or two nets. */
export function join(board: Board, a: Node, b: Node): Result<Board> {
  const first = netAt(board, a);
  if (!first.ok) return first;
  const second = netAt(board, b);
  if (!second.ok) return second;
  const [x, y] = [first.value, second.value];
  if (x.net === undefined && y.net === undefined) {
    const net = nextNet(board);
    return ok(onNet(onNet({ ...board, nets: { ...board.nets, [net]: SIGNAL } }, x, net), y, net));
  }
  if (x.net === undefined) return ok(onNet(board, x, y.net!));
  if (y.net === undefined) return ok(onNet(board, y, x.net));
  if (x.net === y.net) return ok(board);
  // A pin whose net was only assumed is moved; what was read before is never overruled by it.
  if (isAssumed(board, x)) return ok(onNet(board, x, y.net));
  if (isAssumed(board, y)) return ok(onNet(board, y, x.net));
  const ground = groundNet(board);
  const [keep, go] = y.net === ground ? [y.net, x.net] : [x.net, y.net];
  if (railOfNet(board, x.net) && railOfNet(board, y.net))
    return fail(
      `Expected two places of one net; ${x.net} and ${y.net} are two rails: joined they would be a short. Remove the one that is not there.`,
    );
  if (go !== ground && railOfNet(board, go) && keep === ground)
    return fail(`Expected a net that may lie on ground; ${go} is a rail: at ground it would be a short.`);
  return ok(railOfNet(board, go) ? merged(board, go, keep) : merged(board, keep, go));
}

interface Found {
  readonly ref?: PartRef;
  readonly pin?: string;
  readonly net: NetName | undefined;
}

const isAssumed = (board: Board, { ref }: Found): boolean =>
  ref !== undefined && partByRef(board, ref)!.assumed?.includes('pins') === true;

function netAt(board: Board, node: Node): Result<Found> {
  if ('net' in node) {
    const net = netNamed(board, node.net);
    return net === undefined ? fail(`Expected a net of this board; got "${node.net}".`) : ok({ net });
  }
  const part = partNamed(board, node.ref);
  if (!part) return fail(`Expected a part of this board; got "${node.ref}".`);
  const all = landsOf(board.packages[part.package]).map((p) => p.pin);
  const pin = pinNamed(part, node.pin) ?? named(all, node.pin);
  if (pin === undefined)
    return fail(`Expected a pin of ${part.ref}, ${all[0]} to ${all[all.length - 1]}; got "${node.pin}".`);
  return ok({ ref: part.ref, pin, net: part.pins[pin] });
}

const onNet = (board: Board, { ref, pin }: Found, net: NetName): Board => {
  const part = partByRef(board, ref!)!;
  const pins = { ...part.pins, [pin!]: net };
  const loads = Object.entries(part.loadsOhm).filter(([n]) => Object.values(pins).includes(n));
  return changed(board, part.ref, {
    pins,
    loadsOhm: Object.fromEntries(loads),
    ...keptFactors(
      part,
      loads.map(([n]) => n),
    ),
  });
};

const keptFactors = ({ loadsWithin }: Part, nets: readonly NetName[]): Pick<Part, 'loadsWithin'> =>
  loadsWithin ? { loadsWithin: Object.fromEntries(Object.entries(loadsWithin).filter(([n]) => nets.includes(n))) } : {};

function nextNet(board: Board): string {
  let n = 1;
  while (board.nets[`N${n}`]) n++;
  return `N${n}`;
}

/** One net in place of two; a rail of the one that goes is passed over by what it fed. */
export function merged(board: Board, keep: string, go: string): Board {
  const is = (net: NetName): string => (net === go ? keep : net);
  const gone = railOfNet(board, go);
  const stays = railOfNet(board, keep);
  const rail = (id: string): string => (gone && stays && id === gone.id ? stays.id : id);
  const nets = Object.fromEntries(Object.entries(board.nets).filter(([n]) => n !== go));
  return {
    ...board,
    nets,
    parts: board.parts.map((p) => ({
      ...p,
      pins: Object.fromEntries(Object.entries(p.pins).map(([pin, net]) => [pin, is(net)])),
      loadsOhm: inParallel(p.loadsOhm, is),
      ...(p.loadsWithin && { loadsWithin: widest(p.loadsWithin, is) }),
    })),
    points: board.points.map((p) => ({ ...p, net: is(p.net) })),
    rails: board.rails
      .filter((r) => !(gone && stays && r.id === gone.id))
      .map((r) => ({
        ...r,
        net: is(r.net),
        feeds: r.feeds.map((f) => ({ ...f, from: f.from === null ? null : rail(f.from) })),
      })),
    ports: board.ports.map((p) => ({
      ...p,
      vbusRail: rail(p.vbusRail),
      controllerRails: [...new Set(p.controllerRails.map(rail))],
      sides: p.sides.map((s) => ({ ...s, ccNet: is(s.ccNet) })),
    })),
    functions: board.functions.map((f) => ({ ...f, rails: [...new Set(f.rails.map(rail))] })),
  };
}

function inParallel(loads: Part['loadsOhm'], is: (net: NetName) => string): Part['loadsOhm'] {
  const sums = new Map<string, number>();
  for (const [net, ohm] of Object.entries(loads)) sums.set(is(net), (sums.get(is(net)) ?? 0) + 1 / ohm);
  return Object.fromEntries([...sums].map(([net, siemens]) => [net, 1 / siemens]));
}

function widest(
  factors: NonNullable<Part['loadsWithin']>,
  is: (net: NetName) => string,
): NonNullable<Part['loadsWithin']> {
  const found: Record<string, number> = {};
  for (const [net, factor] of Object.entries(factors)) found[is(net)] = Math.max(found[is(net)] ?? 1, factor);
  return found;
}
