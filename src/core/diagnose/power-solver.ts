import type { NetName, PartRef } from '../identities';
import { groundNet, partByRef, type Board, type PlugSide, type Port } from '../board';
import { elementsOf } from './elements';
import type { Effect } from './faults';
import { DRAGGED_DOWN_OHM, type MeterCase } from './power';
import { reachedRails } from './reach';

/** What a port and its rails do, in numbers that are quick to compare. */
export interface QuickSolution {
  readonly meter: MeterCase;
  readonly talks: boolean;
  /** One per rail of {@link PowerSolver.railIds}: 1 where it is up. */
  readonly up: Uint8Array;
}

interface Feed {
  readonly from: number;
  readonly isPort: boolean;
  readonly via: readonly number[];
  readonly by: number;
  readonly needsTalk: boolean;
  readonly needsImage: boolean;
}

interface RailModel {
  readonly feeds: readonly Feed[];
  readonly net: number;
  /** Coils in its feeds, each with the nets at its ends. */
  readonly coils: readonly { readonly ref: number; readonly nets: readonly number[] }[];
  readonly allMade: boolean;
}

const NOWHERE = -1;

/** Rails as they come up, and whether one that hangs on the port is shorted. */
interface Raised {
  readonly up: Uint8Array;
  portShorted: boolean;
}

/**
 * The rules of `solvePower` for one port, compiled to indices: what a set of effects damages is one byte per thing, so that
 * two faults together are an OR. `solvePower` is the plain twin; the tests hold the two against each other.
 */
export class PowerSolver {
  /** The rails that this port can bring up; the others stay without supply. */
  readonly railIds: readonly string[];
  private readonly refs = new Map<string, number>();
  private readonly nets = new Map<string, number>();
  private readonly rails: readonly RailModel[];
  private readonly size: number;
  private readonly absent: Uint8Array;
  private readonly controller: number;
  private readonly image: number;
  private readonly controllerRails: readonly number[];
  private readonly systemRails: readonly number[];
  private readonly packConnector: number;
  private readonly packRail: number;
  private readonly ccNets: Readonly<Record<PlugSide, number>>;
  /** Nothing up; the rails without a contract; the rails with one. */
  private readonly none: Uint8Array;
  private readonly quiet: Raised;
  private readonly live: Raised;
  private liveKnown = false;
  private anyShunt = false;
  private readonly onPort: Uint8Array;
  private damage: Uint8Array = new Uint8Array(0);

  constructor(
    private readonly board: Board,
    private readonly port: Port,
    absentRefs: ReadonlySet<PartRef>,
  ) {
    const ground = groundNet(board);
    const reached = reachedRails(board, port);
    const railIndex = new Map(reached.map(({ rail }, i) => [rail.id, i]));
    this.railIds = [...railIndex.keys()];
    const ref = (name: string): number => numberOf(this.refs, name);
    const net = (name: string): number => numberOf(this.nets, name);
    this.rails = reached.map(({ rail, feeds }) => ({
      net: net(rail.net),
      allMade: feeds.every((f) => f.by !== null),
      coils: rail.feeds.flatMap((f) =>
        f.via
          .map((name) => partByRef(board, name)!)
          .filter((p) => p.kind === 'coil')
          .map((p) => ({
            ref: ref(p.ref),
            nets: elementsOf(board, p)
              .flatMap((e) => [e.a, e.b])
              .filter((n) => n !== ground && n !== rail.net)
              .map(net),
          })),
      ),
      feeds: feeds.map((f) => ({
        from: f.from === null ? NOWHERE : railIndex.get(f.from)!,
        isPort: f.from === null,
        via: f.via.map(ref),
        by: f.by === null ? NOWHERE : ref(f.by),
        needsTalk: f.needs.includes('talk'),
        needsImage: f.needs.includes('image'),
      })),
    }));
    this.controller = ref(port.controller);
    this.image = port.imagePart === undefined ? NOWHERE : ref(port.imagePart);
    this.controllerRails = port.controllerRails.map((id) => railIndex.get(id) ?? NOWHERE);
    this.systemRails = reached.flatMap(({ rail: r }, i) =>
      r.expect.kind === 'fixed' && !port.controllerRails.includes(r.id) ? [i] : [],
    );
    const pack = board.parts.find((p) => p.kind === 'batteryConnector');
    this.packConnector = pack ? ref(pack.ref) : NOWHERE;
    this.packRail = pack ? reached.findIndex(({ rail: r }) => Object.values(pack.pins).includes(r.net)) : NOWHERE;
    const cc = (side: PlugSide): number => net(port.sides.find((s) => s.side === side)!.ccNet);
    this.ccNets = { A: cc('A'), B: cc('B') };
    this.size = 4 * this.refs.size + this.nets.size + OTHERS + reached.length;
    this.absent = Uint8Array.from(this.refs.keys(), (name) => Number(absentRefs.has(name)));
    this.portAbsent = absentRefs.has(port.id);
    this.none = new Uint8Array(this.rails.length);
    this.quiet = { up: this.none.slice(), portShorted: false };
    this.live = { up: this.none.slice(), portShorted: false };
    this.onPort = new Uint8Array(this.rails.length);
  }

  private readonly portAbsent: boolean;

  /** What effects damage, one byte per thing; effects that matter nowhere here leave no mark. */
  mark(effects: readonly Effect[]): Uint8Array {
    const bytes = new Uint8Array(this.size);
    const { size: refs } = this.refs;
    const other = 4 * refs + this.nets.size;
    const set = (index: number | undefined, offset: number): void => {
      if (index !== undefined) bytes[offset + index] = 1;
    };
    for (const e of effects) {
      switch (e.kind) {
        case 'dead':
          set(this.refs.get(e.ref), 0);
          break;
        case 'open':
          set(this.refs.get(e.ref), refs);
          break;
        case 'stuckOn':
          set(this.refs.get(e.ref), 2 * refs);
          break;
        case 'coreDead':
          set(this.refs.get(e.ref), 3 * refs);
          break;
        case 'shunt':
          if (e.ohm < DRAGGED_DOWN_OHM) set(this.nets.get(e.net), 4 * refs);
          break;
        case 'imageBad':
          if (e.ref === this.port.imagePart) bytes[other + IMAGE_BAD] = 1;
          break;
        case 'ccDead':
          if (e.ref === this.port.controller) bytes[other + (e.side === 'A' ? SIDE_A_DEAD : SIDE_B_DEAD)] = 1;
          break;
        case 'pinOpen':
          if (e.ref === this.port.id && e.pin === undefined) bytes[other + this.openContact(e.net)] = 1;
          break;
        case 'cut': {
          const rail = this.railIds.indexOf(e.rail);
          if (rail >= 0) bytes[other + OTHERS + rail] = 1;
          break;
        }
        case 'load':
          bytes[other + LOADED] = 1;
          break;
        case 'outside':
          if (e.what === 'pack') bytes[other + PACK_BAD] = 1;
          break;
        // These leave the power as it is: what they short or cut is told by a resistance, a drop or a try.
        case 'bridge':
        case 'dirty':
        case 'drift':
        case 'jointOpen':
        case 'software':
        case 'visible':
        case 'inputs':
        case 'leak':
          break;
      }
    }
    return bytes;
  }

  private openContact(net: NetName): number {
    if (net === this.board.rails.find((r) => r.id === this.port.vbusRail)!.net) return BUS_OPEN;
    const side = this.port.sides.find((s) => s.ccNet === net)?.side;
    return side === 'A' ? CC_A_OPEN : side === 'B' ? CC_B_OPEN : NOTHING;
  }

  /** Takes damage as {@link mark} gives it; {@link at} then says what each way of plugging does. */
  settle(damage: Uint8Array): void {
    this.damage = damage;
    const nets = 4 * this.refs.size;
    this.anyShunt = false;
    for (let i = 0; i < this.nets.size && !this.anyShunt; i++) this.anyShunt = damage[nets + i] === 1;
    this.raise(this.quiet, false);
    this.liveKnown = false;
  }

  /** The solution for the settled damage. Its `up` is overwritten by the next {@link settle}. */
  at(side: PlugSide, pack: 'in' | 'out'): QuickSolution {
    const { quiet, live } = this;
    if (!this.attached(side) || quiet.portShorted) return { meter: 'nothing', talks: false, up: this.none };
    if (!this.canTalk(side)) return { meter: this.silent(), talks: false, up: quiet.up };
    // What comes up with a contract is the same for both ways and with or without a pack.
    if (!this.liveKnown) this.raise(live, true);
    this.liveKnown = true;
    if (live.portShorted) return { meter: 'contractCollapses', talks: false, up: quiet.up };
    return { meter: this.talking(pack), talks: true, up: live.up };
  }

  private other(index: number): boolean {
    return this.damage[4 * this.refs.size + this.nets.size + index] === 1;
  }
  private shunted(net: number): boolean {
    return this.damage[4 * this.refs.size + net] === 1;
  }
  private works(ref: number): boolean {
    return this.absent[ref] === 0 && this.damage[ref] === 0;
  }
  private runs(ref: number): boolean {
    return this.works(ref) && this.damage[3 * this.refs.size + ref] === 0;
  }
  private stuck(ref: number): boolean {
    return this.damage[2 * this.refs.size + ref] === 1;
  }
  private conducts(ref: number): boolean {
    return this.stuck(ref) || (this.works(ref) && this.damage[this.refs.size + ref] === 0);
  }

  private attached(side: PlugSide): boolean {
    if (this.portAbsent || this.other(BUS_OPEN) || this.other(side === 'A' ? CC_A_OPEN : CC_B_OPEN)) return false;
    return !this.shunted(this.ccNets[side]) && this.absent[this.controller] === 0;
  }

  private imageGood(): boolean {
    return this.image === NOWHERE || (this.works(this.image) && !this.other(IMAGE_BAD));
  }

  private canTalk(side: PlugSide): boolean {
    return (
      this.runs(this.controller) &&
      !this.other(side === 'A' ? SIDE_A_DEAD : SIDE_B_DEAD) &&
      this.imageGood() &&
      this.controllerRails.every((i) => this.quiet.up[i] === 1)
    );
  }

  private railShunted(rail: RailModel): boolean {
    if (!this.anyShunt) return false;
    if (this.shunted(rail.net)) return true;
    for (const { ref, nets } of rail.coils) {
      if (!this.conducts(ref)) continue;
      for (const net of nets) if (this.shunted(net)) return true;
    }
    return false;
  }

  /** Brings the rails up in order. */
  private raise(raised: Raised, talks: boolean): void {
    const { onPort, rails } = this;
    const { up } = raised;
    up.fill(0);
    onPort.fill(0);
    raised.portShorted = false;
    const image = this.imageGood();
    for (let i = 0; i < rails.length; i++) {
      if (this.other(OTHERS + i)) continue;
      const shunted = this.railShunted(rails[i]);
      for (const feed of rails[i].feeds) {
        if (!feed.isPort && (feed.from === NOWHERE || up[feed.from] === 0)) continue;
        if (!this.passes(feed, talks, image)) continue;
        const hangs = feed.isPort || (feed.by === NOWHERE && feed.from !== NOWHERE && onPort[feed.from] === 1);
        if (hangs) onPort[i] = 1;
        if (shunted && hangs) raised.portShorted = true;
        if (!shunted) up[i] = 1;
      }
    }
    if (this.anyShunt) this.dropFeedersOfShorted(up);
  }

  /** True where a feed whose source is up brings its rail up. */
  private passes(feed: Feed, talks: boolean, image: boolean): boolean {
    if (feed.needsImage && !image) return false;
    if (feed.needsTalk && !talks && !this.anyStuck(feed.via)) return false;
    if (!this.allConduct(feed.via)) return false;
    if (feed.by === NOWHERE) return true;
    return feed.needsTalk || feed.needsImage ? this.runs(feed.by) : this.works(feed.by);
  }

  private anyStuck(via: readonly number[]): boolean {
    for (const ref of via) if (this.stuck(ref)) return true;
    return false;
  }

  private allConduct(via: readonly number[]): boolean {
    for (const ref of via) if (!this.conducts(ref)) return false;
    return true;
  }

  private dropFeedersOfShorted(up: Uint8Array): void {
    const { rails } = this;
    for (let i = 0; i < rails.length; i++) {
      if (up[i] === 1 || this.other(OTHERS + i) || !this.railShunted(rails[i])) continue;
      for (const feed of rails[i].feeds) {
        if (feed.by !== NOWHERE || feed.from === NOWHERE || up[feed.from] === 0) continue;
        if (rails[feed.from].allMade && this.allConduct(feed.via)) this.drop(up, feed.from);
      }
    }
  }

  private drop(up: Uint8Array, index: number): void {
    const { rails } = this;
    up[index] = 0;
    for (let i = 0; i < rails.length; i++) {
      if (up[i] === 1 && rails[i].feeds.every((f) => f.from !== NOWHERE && up[f.from] === 0)) this.drop(up, i);
    }
  }

  private silent(): MeterCase {
    if (this.controllerRails.some((i) => i !== NOWHERE && this.railShunted(this.rails[i]))) return 'supplyShorted';
    const fed = this.controllerRails.some((i) => this.quiet.up[i] === 1);
    return fed || !this.works(this.controller) ? 'noTalk' : 'noTalkUnfed';
  }

  private talking(pack: 'in' | 'out'): MeterCase {
    if (this.other(LOADED)) return 'earlyLoad';
    if (this.systemRails.some((i) => this.railShunted(this.rails[i]))) return 'systemShorted';
    const charges =
      pack === 'in' && this.packRail >= 0 && this.live.up[this.packRail] === 1 && this.works(this.packConnector);
    if (charges && this.other(PACK_BAD)) return 'preCharge';
    return charges ? 'healthy' : 'noCharge';
  }
}

/** The marks beside parts and nets. */
const IMAGE_BAD = 0;
const SIDE_A_DEAD = 1;
const SIDE_B_DEAD = 2;
const CC_A_OPEN = 3;
const CC_B_OPEN = 4;
const BUS_OPEN = 5;
const LOADED = 6;
const PACK_BAD = 7;
const NOTHING = 8;
const OTHERS = 9;

function numberOf(map: Map<string, number>, name: string): number {
  let number = map.get(name);
  if (number === undefined) map.set(name, (number = map.size));
  return number;
}
