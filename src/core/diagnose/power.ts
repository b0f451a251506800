import type { NetName, PartRef, RailId } from '../identities';
import { groundNet, partByRef, type Board, type PlugSide, type Port, type Rail } from '../board';
import { elementsOf } from './elements';
import type { Effect } from './faults';
import { reachedRails, type ReachedRail } from './reach';

/** How the board is supplied while it is measured: a known-good charger at one port, plugged one way round. */
export interface SupplyState {
  readonly port: string;
  readonly side: PlugSide;
  readonly pack: 'in' | 'out';
}

/** What the meter in line is expected to show. */
export type MeterCase =
  | 'nothing'
  | 'noTalk'
  | 'noTalkUnfed'
  | 'supplyShorted'
  | 'contractCollapses'
  | 'healthy'
  | 'preCharge'
  | 'earlyLoad'
  | 'noCharge'
  | 'systemShorted';

export interface PowerSolution {
  readonly talks: boolean;
  readonly meter: MeterCase;
  /** Volts at each rail, by rail id. */
  readonly railVolts: ReadonlyMap<string, number>;
}

/** A load below this pulls a rail down, ohm. Engineering estimate: a few amperes at the lowest rail. */
export const DRAGGED_DOWN_OHM = 10;

/** VBUS before any contract. Source: USB Type-C, vSafe5V (4.75–5.5 V). */
export const VSAFE5_V = 5;

/** The parts of the effects that the power rules ask about, gathered once. */
class Damage {
  private readonly deadRefs = new Set<string>();
  private readonly openRefs = new Set<string>();
  private readonly coreDead = new Set<string>();
  private readonly stuckOn = new Set<string>();
  private readonly badImages = new Set<string>();
  private readonly shunted = new Set<string>();
  private readonly openPins = new Set<string>();
  private readonly deadSides = new Set<string>();
  private readonly cutRails = new Set<string>();
  packBad = false;
  loaded = false;

  constructor(
    effects: readonly Effect[],
    private readonly absent: ReadonlySet<PartRef>,
  ) {
    for (const e of effects) {
      if (e.kind === 'dead') this.deadRefs.add(e.ref);
      else if (e.kind === 'open') this.openRefs.add(e.ref);
      else if (e.kind === 'coreDead') this.coreDead.add(e.ref);
      else if (e.kind === 'stuckOn') this.stuckOn.add(e.ref);
      else if (e.kind === 'imageBad') this.badImages.add(e.ref);
      else if (e.kind === 'shunt' && e.ohm < DRAGGED_DOWN_OHM) this.shunted.add(e.net);
      else if (e.kind === 'pinOpen' && e.pin === undefined) this.openPins.add(`${e.ref} ${e.net}`);
      else if (e.kind === 'cut') this.cutRails.add(e.rail);
      else if (e.kind === 'load') this.loaded = true;
      else if (e.kind === 'outside' && e.what === 'pack') this.packBad = true;
      else if (e.kind === 'ccDead') this.deadSides.add(`${e.ref} ${e.side}`);
    }
  }

  runs = (ref: PartRef): boolean => this.works(ref) && !this.coreDead.has(ref);
  isCut = (rail: RailId): boolean => this.cutRails.has(rail);
  present = (ref: PartRef): boolean => !this.absent.has(ref);
  works = (ref: PartRef): boolean => !this.absent.has(ref) && !this.deadRefs.has(ref);
  conducts = (ref: PartRef): boolean => this.stuckOn.has(ref) || (this.works(ref) && !this.openRefs.has(ref));
  isStuckOn = (ref: PartRef): boolean => this.stuckOn.has(ref);
  imageGood = (ref: PartRef): boolean => this.works(ref) && !this.badImages.has(ref);
  isShunted = (net: NetName): boolean => this.shunted.has(net);
  pinOpen = (ref: PartRef, net: NetName): boolean => this.absent.has(ref) || this.openPins.has(`${ref} ${net}`);
  sideDead = (ref: PartRef, side: PlugSide): boolean => this.deadSides.has(`${ref} ${side}`);
}

/**
 * Which rails come up, whether the port talks, and what the meter shows.
 *
 * Rules: a rail is up when a feed of it is complete (source up, series parts conducting, converter alive, needs met)
 * and nothing drags it down. A short behind a converter stops there; a short behind a fuse or a closed switch pulls the
 * port down too. The port talks when its CC path, controller, the controller's rails and its image are good.
 */
export function solvePower(
  board: Board,
  effects: readonly Effect[],
  absent: ReadonlySet<PartRef>,
  supply: SupplyState,
): PowerSolution {
  const port = board.ports.find((p) => p.id === supply.port)!;
  const damage = new Damage(effects, absent);
  const rails = reachedRails(board, port);
  const attached = isAttached(board, port, supply.side, damage);
  if (!attached) return nothing(board);

  const before = railsUp(board, rails, port, damage, false);
  if (before.portShorted) return nothing(board);
  const talks = canTalk(port, supply.side, damage, before.up);
  if (!talks)
    return {
      talks,
      meter: silentMeter(board, rails, port, damage, before.up),
      railVolts: volts(board, before.up, VSAFE5_V),
    };

  const after = railsUp(board, rails, port, damage, true);
  if (after.portShorted)
    return { talks: false, meter: 'contractCollapses', railVolts: volts(board, before.up, VSAFE5_V) };
  return {
    talks,
    meter: talkingMeter(board, rails, port, damage, after.up, supply),
    railVolts: volts(board, after.up, port.designV),
  };
}

const nothing = (board: Board): PowerSolution => ({
  talks: false,
  meter: 'nothing',
  railVolts: new Map(board.rails.map((r) => [r.id, 0])),
});

/**
 * The charger gives 5 V only when it sees the sink's pull-down on this side's CC line; a dead controller still shows
 * its passive one. Source: USB Type-C specification, attach detection and dead-battery behaviour (from memory).
 */
function isAttached(board: Board, port: Port, side: PlugSide, damage: Damage): boolean {
  const { ccNet } = port.sides.find((s) => s.side === side)!;
  const vbusNet = board.rails.find((r) => r.id === port.vbusRail)!.net;
  if (damage.pinOpen(port.id, ccNet) || damage.pinOpen(port.id, vbusNet)) return false;
  return !damage.isShunted(ccNet) && damage.present(port.controller);
}

const imageGoodAt = ({ imagePart }: Port, damage: Damage): boolean =>
  imagePart === undefined || damage.imageGood(imagePart);

function canTalk(port: Port, side: PlugSide, damage: Damage, up: ReadonlySet<string>): boolean {
  return (
    damage.runs(port.controller) &&
    !damage.sideDead(port.controller, side) &&
    imageGoodAt(port, damage) &&
    port.controllerRails.every((id) => up.has(id))
  );
}

interface RailState {
  readonly up: ReadonlySet<string>;
  /** True when a short reaches the port through closed series paths. */
  readonly portShorted: boolean;
}

function railsUp(board: Board, rails: readonly ReachedRail[], port: Port, damage: Damage, talks: boolean): RailState {
  const up = new Set<string>();
  const imageGood = imageGoodAt(port, damage);
  let portShorted = false;
  /** Rails that hang on the port without a converter between: a short on one pulls all down. */
  const onPort = new Set<string>();
  for (const { rail, feeds } of rails) {
    const shunted = isRailShunted(board, rail, damage);
    if (damage.isCut(rail.id)) continue;
    for (const feed of feeds) {
      const fed = feed.from === null || up.has(feed.from);
      const forced = feed.via.some(damage.isStuckOn);
      const needsMet = feed.needs.every((need) => (need === 'talk' ? talks || forced : imageGood));
      if (
        !fed ||
        !needsMet ||
        !feed.via.every(damage.conducts) ||
        (feed.by !== null && !(feed.needs.length > 0 ? damage.runs(feed.by) : damage.works(feed.by)))
      )
        continue;
      const hangsOnPort = feed.from === null || (feed.by === null && onPort.has(feed.from));
      if (hangsOnPort) onPort.add(rail.id);
      if (shunted && hangsOnPort) portShorted = true;
      if (!shunted) up.add(rail.id);
    }
  }
  dropFeedersOfShorted(board, rails, up, damage);
  return portShorted ? { up: new Set(), portShorted } : { up, portShorted };
}

/** A shorted rail that is passed on by a switch alone drags its source down with it. */
function dropFeedersOfShorted(board: Board, rails: readonly ReachedRail[], up: Set<string>, damage: Damage): void {
  for (const { rail, feeds } of rails) {
    if (!isRailShunted(board, rail, damage) || damage.isCut(rail.id)) continue;
    for (const feed of feeds) {
      if (feed.by === null && feed.from !== null && up.has(feed.from) && feed.via.every(damage.conducts)) {
        const source = rails.find((r) => r.rail.id === feed.from)!;
        if (source.feeds.every((f) => f.by !== null)) dropWithDependants(rails, up, source.rail.id);
      }
    }
  }
}

function dropWithDependants(rails: readonly ReachedRail[], up: Set<string>, id: string): void {
  up.delete(id);
  for (const { rail, feeds } of rails) {
    if (up.has(rail.id) && feeds.every((f) => f.from !== null && !up.has(f.from)))
      dropWithDependants(rails, up, rail.id);
  }
}

/** A rail is dragged down by a short at its net, or across a sound coil or fuse from its net. */
function isRailShunted(board: Board, rail: Rail, damage: Damage): boolean {
  if (damage.isShunted(rail.net)) return true;
  const ground = groundNet(board);
  return rail.feeds.some((feed) =>
    feed.via.some((ref) => {
      const part = partByRef(board, ref)!;
      if (part.kind !== 'coil' || !damage.conducts(ref)) return false;
      return elementsOf(board, part).some((e) =>
        [e.a, e.b].some((net) => net !== ground && net !== rail.net && damage.isShunted(net)),
      );
    }),
  );
}

function silentMeter(
  board: Board,
  rails: readonly ReachedRail[],
  port: Port,
  damage: Damage,
  up: ReadonlySet<string>,
): MeterCase {
  const shorted = rails.some(
    ({ rail }) => port.controllerRails.includes(rail.id) && isRailShunted(board, rail, damage),
  );
  if (shorted) return 'supplyShorted';
  const controllerFed = port.controllerRails.some((id) => up.has(id));
  return controllerFed || !damage.works(port.controller) ? 'noTalk' : 'noTalkUnfed';
}

function talkingMeter(
  board: Board,
  rails: readonly ReachedRail[],
  port: Port,
  damage: Damage,
  up: ReadonlySet<string>,
  supply: SupplyState,
): MeterCase {
  if (damage.loaded) return 'earlyLoad';
  const system = rails.filter(({ rail: r }) => r.expect.kind === 'fixed' && !port.controllerRails.includes(r.id));
  if (system.some(({ rail }) => isRailShunted(board, rail, damage))) return 'systemShorted';
  const packConnector = board.parts.find((p) => p.kind === 'batteryConnector');
  const packRail = board.rails.find((r) => packConnector && Object.values(packConnector.pins).includes(r.net));
  const charges =
    supply.pack === 'in' && packRail !== undefined && up.has(packRail.id) && damage.works(packConnector!.ref);
  if (charges && damage.packBad) return 'preCharge';
  return charges ? 'healthy' : 'noCharge';
}

function volts(board: Board, up: ReadonlySet<string>, busV: number): Map<string, number> {
  return new Map(board.rails.map((r) => [r.id, !up.has(r.id) ? 0 : r.expect.kind === 'bus' ? busV : r.expect.volts]));
}
