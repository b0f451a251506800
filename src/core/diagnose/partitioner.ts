import type { NetName, PartRef } from '../identities';
import { behindNet, groundNet, type Board, type Port } from '../board';
import type { CircuitModel } from './circuit-model';
import { isGone, type Effect, type Fault } from './faults';
import { METER_WORDS } from './meter';
import type { MeterCase } from './power';
import { PairwiseResistance } from './pairwise-resistance';
import { PowerTable, effectsText } from './power-table';
import { DROP_SHORT_BELOW_OHM } from './measurements/drop-prediction';
import { shownLogOhm } from './measurements/scale';
import { numberKeys } from './outcome-partition';

/** Resistances closer than this share one row, log10 ohm: far below the spread of any reading. */
const ROW_DECADES = 0.04;

/** How a test parts the faults: a key for each, the effects that a key stands for, and the name of the row of two keys. */
export interface FaultPartition {
  readonly keyOf: Uint16Array;
  readonly keys: number;
  readonly effects: readonly (readonly Effect[])[];
  readonly rowName: (a: number, b: number) => string | number;
  /** Partitions of one state of the board with the same name share their rows: twin contacts of a net, a trace and a capture. */
  readonly sharedRows?: string;
}

/** The behaviour of one port under every pair of keys, as the tests at the port ask for it. */
export interface PortPartition {
  readonly port: Port;
  readonly keyOf: Uint16Array;
  readonly keys: number;
  readonly effects: readonly (readonly Effect[])[];
  /** Number of the meter's case of two keys, by plug way. */
  readonly meterOf: (a: number, b: number) => number;
  /** True where the port talks one way round at least. */
  readonly talks: (a: number, b: number) => boolean;
  /** True where it charges both ways round. */
  readonly charges: (a: number, b: number) => boolean;
}

/**
 * Finds out which faults a test can tell apart in one state of the board: which parts are off, which were replaced. Each
 * measurement kind asks it for the partition that its physics needs; what a row then reads is said by the kind's plain
 * prediction.
 */
export class Partitioner {
  /** Effects of each fault that still count in this state. */
  readonly active: readonly (readonly Effect[])[];
  readonly board: Board;
  readonly ground: string;
  private changes?: PairwiseResistance;
  private readonly powers = new Map<string, PowerTable>();
  private readonly drops = new Map<string, FaultPartition>();

  constructor(
    readonly model: CircuitModel,
    private readonly faults: readonly Fault[],
    readonly absent: ReadonlySet<PartRef>,
    cleared: ReadonlySet<string>,
  ) {
    this.board = model.board;
    this.ground = groundNet(this.board);
    this.active = faults.map((f) => (isGone(f, absent, cleared) ? [] : f.effects));
  }

  /** For tests that no fault changes. */
  constant(): FaultPartition {
    return { keyOf: new Uint16Array(this.faults.length), keys: 1, effects: [[]], rowName: () => 0 };
  }

  /** For tests that ask a yes or no of single effects. */
  anyEffect(counts: (e: Effect) => boolean): FaultPartition {
    const relevant = this.active.map((effects) => effects.filter(counts));
    const { keyOf, keys, standsFor } = numberKeys(relevant.map((list) => (list.length > 0 ? 'yes' : '')));
    return {
      keyOf,
      keys,
      effects: standsFor.map((f) => (f < 0 ? [] : relevant[f])),
      rowName: (a, b) => Number(a > 0 || b > 0),
    };
  }

  /** For tests that tell single effects from one another by name: faults of one name are alike, and so are two of them in either order. */
  namedEffects(nameOf: (e: Effect) => string | undefined): FaultPartition {
    const relevant = this.active.map((effects) => effects.filter((e) => nameOf(e) !== undefined));
    const { keyOf, keys, standsFor } = numberKeys(relevant.map((list) => list.map(nameOf).join(' ')));
    return {
      keyOf,
      keys,
      effects: standsFor.map((f) => (f < 0 ? [] : relevant[f])),
      rowName: (a, b) => (a < b ? a * keys + b : b * keys + a),
    };
  }

  private changeTable(): PairwiseResistance {
    return (this.changes ??= new PairwiseResistance(this.model.networkWithout(this.absent), this.active, this.ground));
  }

  /** For a resistance between two nets. */
  resistance(p: string, q: string): FaultPartition {
    const changes = this.changeTable();
    const { keyOf, changeOf, count, ohms } = changes.between(p, q);
    const names = Int32Array.from(ohms, (ohm) => Math.round(shownLogOhm(ohm) / ROW_DECADES));
    const effects = changeOf.map((k) => changes.effects[k]);
    return { keyOf, keys: count, effects, rowName: (a, b) => names[a * count + b] };
  }

  /**
   * A drop is a short where the net is pulled to ground; else what touches the net and the chip behind it decides.
   * @param joint the joint at which it is taken, where an open one shows.
   */
  diodeDrop(net: NetName, sharedRows: string, joint?: { readonly ref: PartRef; readonly pin: string }): FaultPartition {
    const isJoint = (e: Effect): boolean => e.kind === 'jointOpen' && e.ref === joint?.ref && e.pin === joint.pin;
    if (joint && this.active.some((effects) => effects.some(isJoint)))
      return { ...this.dropRows(net, isJoint), sharedRows: `${sharedRows} ${net} ${joint.ref} ${joint.pin}` };
    let rows = this.drops.get(net);
    if (!rows) this.drops.set(net, (rows = this.dropRows(net)));
    return { ...rows, sharedRows: `${sharedRows} ${net}` };
  }

  /** Keys and row names of drops on a net: twin contacts share them. */
  private dropRows(net: NetName, alsoTouches: (e: Effect) => boolean = () => false): FaultPartition {
    const changes = this.changeTable();
    const { seenAs, count: c, ohms } = changes.between(net, this.ground);
    const changeOfFault = (f: number): number => (f < 0 ? 0 : seenAs[changes.keyOf[f]]);
    const lowByNature = this.board.nets[net].lowByNature;
    const short = new Uint8Array(c * c);
    if (!lowByNature) for (let i = 0; i < short.length; i++) short[i] = ohms[i] < DROP_SHORT_BELOW_OHM ? 1 : 0;
    const isShort = (a: number, b: number): boolean => short[a * c + b] === 1;
    // Changes that short this net with the same partners are alike for it.
    const shortText = Array.from({ length: c }, (_, a) => String.fromCharCode(...short.subarray(a * c, (a + 1) * c)));
    const touches = this.touching(net);
    const local = this.active.map((effects) => effects.filter((e) => touches(e) || alsoTouches(e)));
    const texts = this.active.map((_, f) => {
      const own = effectsText(local[f]);
      const shorts = shortText[changeOfFault(f)];
      return own === '' && shorts === shortText[0] ? '' : `${own}#${shorts}`;
    });
    const { keyOf, keys, standsFor } = numberKeys(texts);
    const changeOf = standsFor.map(changeOfFault);
    const localTexts = new Map<string, number>([['', 0]]);
    const localOf = standsFor.map((f) => {
      const text = f < 0 ? '' : effectsText(local[f]);
      if (!localTexts.has(text)) localTexts.set(text, localTexts.size);
      return localTexts.get(text)!;
    });
    const effects = standsFor.map((f) => (f < 0 ? [] : this.active[f]));
    const locals = localTexts.size;
    return {
      keyOf,
      keys,
      effects,
      rowName: (a, b) => {
        if (isShort(changeOf[a], changeOf[b])) return -1;
        const [x, y] = [localOf[a], localOf[b]];
        return x < y ? x * locals + y : y * locals + x;
      },
    };
  }

  /** Effects that a drop on this net can see beside shorts. */
  private touching(net: NetName): (e: Effect) => boolean {
    const { chips, through } = behindNet(this.board, net, ['lineFilter']);
    return (e) => {
      switch (e.kind) {
        case 'pinOpen':
        case 'dirty':
        case 'leak':
          return e.net === net;
        case 'inputs':
          return chips.includes(e.ref);
        case 'ccDead':
          return chips.includes(e.ref) && this.board.ports.some((p) => p.sides.some((s) => s.ccNet === net));
        case 'open':
          return through.includes(e.ref);
        default:
          return false;
      }
    };
  }

  /** The powered behaviour at one port. */
  power(port: Port): PowerTable {
    let table = this.powers.get(port.id);
    if (!table) {
      table = new PowerTable(this.board, port, this.active, this.absent);
      this.powers.set(port.id, table);
    }
    return table;
  }

  /** For tests at a port: @param side the plug way that {@link PortPartition.meterOf} speaks of. */
  atPort(portId: string, side: 'A' | 'B' = 'A'): PortPartition {
    const port = this.board.ports.find((p) => p.id === portId)!;
    const power = this.power(port);
    const { keys, keyOf, effects, states } = power;
    const [wayA, wayB] = [power.stateOf('A in'), power.stateOf('B in')];
    const way = side === 'B' ? wayB : wayA;
    const meters = Uint8Array.from(states, (s) => METERS.indexOf(s.meter));
    const isHealthy = (state: number): boolean => states[state].meter === 'healthy';
    return {
      ...{ port, keyOf, keys, effects },
      meterOf: (a, b) => meters[way[a * keys + b]],
      talks: (a, b) => states[wayA[a * keys + b]].talks || states[wayB[a * keys + b]].talks,
      charges: (a, b) => isHealthy(wayA[a * keys + b]) && isHealthy(wayB[a * keys + b]),
    };
  }
}

const METERS = Object.keys(METER_WORDS) as MeterCase[];
