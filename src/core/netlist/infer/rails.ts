import type { NetName } from '../../identities';
import type { ForeignPart } from '../foreign';
import { isChip, kindOf } from './kinds';
import { groundRank, isBusName, isNamedByPad, isSignalName, isSupplyName, leafOf, voltsByName } from './names';
import type { PortGuess } from './port';
import type { Wiring } from './wiring';

/** A supply that was found, and what feeds it. */
export interface RailGuess {
  readonly net: NetName;
  /** By name; undefined where nothing says it; `bus` where it follows the port. */
  readonly volts?: number | 'bus';
  /** The rail it comes from; undefined for the port's own and where it could not be told. */
  readonly from?: string;
  /** The chip that makes it. */
  readonly by?: string;
  /** Parts in series between the two. */
  readonly via: readonly string[];
  readonly why: string;
}

/** Capacitors to ground that tell a supply from a signal that has no such name. Engineering estimate. */
const LEAST_CAPACITORS = 2;
const SERIES: ReadonlySet<string> = new Set(['fuse', 'mosfet', 'coil', 'resistor']);
/** A resistor in a supply's way is a shunt: at most so many ohms. Engineering estimate. */
const MOST_SHUNT_OHM = 1;

/** A capacitor's other net, where it goes to ground. */
const bypassed = (part: ForeignPart, wiring: Wiring, ground: string | undefined): boolean =>
  kindOf(part).kind === 'capacitor' && ground !== undefined && wiring.netsOf(part).includes(ground);

interface Candidate {
  readonly net: NetName;
  readonly why: string;
}

/** Nets that supply: by name; by their capacitors and the chips on them; behind a coil. */
function candidatesOf(wiring: Wiring, ports: readonly PortGuess[], ground: string | undefined): Candidate[] {
  const signals = new Set(ports.flatMap((p) => [p.cc1, p.cc2]));
  const buses = new Set(ports.map((p) => p.bus));
  return wiring.nets.flatMap((net): Candidate[] => {
    if (net === ground || groundRank(net) < 3 || signals.has(net)) return [];
    const parts = wiring.partsOn(net);
    const capacitors = parts.filter((p) => bypassed(p, wiring, ground)).length;
    const chips = parts.filter(isChip).length;
    const coils = parts.filter((p) => kindOf(p).kind === 'coil').length;
    if (buses.has(net) || isBusName(net)) return [{ net, why: 'it is the bus of a port' }];
    if (isSupplyName(net) && (parts.length >= 2 || capacitors > 0))
      return [{ net, why: 'its name is that of a supply' }];
    if (/^v[a-z]/i.test(leafOf(net)) && !isSignalName(net) && capacitors > 0)
      return [{ net, why: 'its name begins with V and a capacitor holds it' }];
    if (capacitors >= LEAST_CAPACITORS && chips >= 1)
      return [{ net, why: `${capacitors} capacitors hold it to ground and a chip is on it` }];
    // A switch node has a coil and no capacitor to ground; what lies behind the coil has.
    if (coils > 0 && capacitors > 0 && parts.length >= 3 && !isNamedByPad(net))
      return [{ net, why: 'it lies behind a coil and is held by a capacitor' }];
    return [];
  });
}

/** Rails in the order in which they come up: the bus first, each behind what feeds it. */
export function railsOf(
  wiring: Wiring,
  ports: readonly PortGuess[],
  ground: string | undefined,
  ohmOf: (part: ForeignPart) => number | undefined,
): RailGuess[] {
  const candidates = candidatesOf(wiring, ports, ground);
  const supply = new Set(candidates.map((c) => c.net));
  const buses = ports.map((p) => p.bus);
  const found = new Map<string, RailGuess>();
  const why = new Map(candidates.map((c) => [c.net, c.why]));
  const add = (rail: Omit<RailGuess, 'why'>): void =>
    void found.set(rail.net, { ...rail, why: `${leafOf(rail.net)}: ${why.get(rail.net)}.` });
  for (const bus of buses) add({ net: bus, volts: 'bus', via: [] });
  const queue = [...buses];
  const sweep = (): void => {
    while (queue.length > 0) {
      const from = queue.shift()!;
      for (const next of inSeries(wiring, from, supply, ohmOf)) {
        if (found.has(next.net)) continue;
        const parent = found.get(from)!;
        const named = voltsByName(next.net);
        add({ net: next.net, volts: named ?? parent.volts, from, via: next.via });
        queue.push(next.net);
      }
    }
  };
  sweep();
  // What no series part leads to is made by a chip: the one that is also on a rail that is up, the nearest in volts above it.
  for (let round = 0; round < candidates.length; round++) {
    const made = candidates
      .filter((c) => !found.has(c.net))
      .map((c) => ({ net: c.net, maker: makerOf(wiring, c.net, found, supply, ground) }))
      .filter((m) => m.maker)
      .sort((a, b) => b.maker!.score - a.maker!.score)[0];
    if (!made?.maker) break;
    add({
      net: made.net,
      volts: voltsByName(made.net),
      from: made.maker.from,
      by: made.maker.by.ref,
      via: made.maker.via,
    });
    queue.push(made.net);
    sweep();
  }
  for (const { net } of candidates) if (!found.has(net)) add({ net, volts: voltsByName(net), via: [] });
  return [...found.values()];
}

/** Supplies that a fuse, a switch, a bead or a shunt leads on to. */
function inSeries(
  wiring: Wiring,
  from: string,
  supply: ReadonlySet<string>,
  ohmOf: (part: ForeignPart) => number | undefined,
): { net: NetName; via: string[] }[] {
  return wiring.partsOn(from).flatMap((part) => {
    const { kind } = kindOf(part);
    if (!SERIES.has(kind)) return [];
    if (kind === 'resistor' && !((ohmOf(part) ?? Infinity) <= MOST_SHUNT_OHM)) return [];
    return wiring
      .netsOf(part)
      .filter((net) => net !== from && supply.has(net))
      .map((net) => ({ net, via: [part.ref] }));
  });
}

interface Maker {
  readonly by: ForeignPart;
  readonly from: string;
  readonly via: string[];
  readonly score: number;
}

const MAKERS: ReadonlySet<string> = new Set(['converter', 'chargeController', 'portController', 'processor']);

/** The chip that makes a rail, and from which rail: on the rail itself, or on the switch node behind its coil. */
function makerOf(
  wiring: Wiring,
  net: NetName,
  found: ReadonlyMap<string, RailGuess>,
  supply: ReadonlySet<string>,
  ground: string | undefined,
): Maker | undefined {
  const coils = wiring.partsOn(net).filter((p) => kindOf(p).kind === 'coil');
  const nodes = coils.flatMap((coil) =>
    wiring
      .netsOf(coil)
      .filter((n) => n !== net && !supply.has(n))
      .map((n) => ({ coil, node: n })),
  );
  const behind = nodes.flatMap(({ coil, node }) =>
    wiring
      .partsOn(node)
      .filter(isChip)
      .map((chip) => ({ chip, via: [coil.ref] })),
  );
  const direct = wiring
    .partsOn(net)
    .filter((p) => isChip(p) && MAKERS.has(kindOf(p).kind))
    .map((chip) => ({ chip, via: [] as string[] }));
  const volts = voltsByName(net);
  const options = [...behind, ...direct].flatMap(({ chip, via }) =>
    wiring
      .netsOf(chip)
      .filter((n) => n !== net && n !== ground && found.has(n))
      .filter((n) => {
        const above = found.get(n)!.volts;
        return !(typeof above === 'number' && volts !== undefined && above < volts && via.length === 0);
      })
      .map((from) => ({ by: chip, from, via, score: scoreOf(chip, wiring, via, found.get(from)!, ground) })),
  );
  return options.sort((a, b) => b.score - a.score)[0];
}

/** A chip behind a coil makes the rail; a small chip that is said to be a regulator does; a large one more seldom. */
function scoreOf(
  chip: ForeignPart,
  wiring: Wiring,
  via: readonly string[],
  from: RailGuess,
  ground: string | undefined,
): number {
  const { kind, sure } = kindOf(chip);
  const said = sure && kind === 'converter' ? 6 : sure && kind === 'chargeController' ? 3 : 0;
  const small = wiring.netsOf(chip).filter((n) => n !== ground).length <= 5 ? 3 : 0;
  return (via.length > 0 ? 8 : 0) + said + small + (from.volts === 'bus' ? 0 : 1);
}
