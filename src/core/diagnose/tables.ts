import { behindNet, groundNet, partByRef, type Board, type Port } from '../board';
import { isGone, type Effect, type Fault, type OutsideThing } from './faults';
import { throughNets, type Measurement } from './measurement';
import { METER_WORDS } from './meter';
import type { MeterCase } from './power';
import { ChangeTable } from './change-table';
import { PowerTable, effectsText } from './power-table';
import { DROP_SHORT_BELOW_OHM, shownLogOhm, type Predictor } from './predict';
import type { Prediction } from './prediction';
import { buildTable, layOut, numberKeys, type RowLayout, type TableRecipe, type TestTable } from './table';

/** Resistances closer than this share one row, log10 ohm: far below the spread of any reading. */
const ROW_DECADES = 0.04;
const NONE: ReadonlySet<string> = new Set();

/** What tells faults apart for a drop on one net. */
type DropRows = Omit<TableRecipe, 'predict'> & { readonly effects: readonly (readonly Effect[])[] };

/**
 * Tables of all tests for one state of the board: which parts are off, which were replaced. Each is built when it is
 * first asked for. The plain {@link Predictor} says what a row reads; the tables only find out which pairs share a row.
 */
export class StateTables {
  private readonly tables = new Map<string, TestTable>();
  /** Effects of each fault that still count in this state. */
  private readonly active: readonly (readonly Effect[])[];
  private readonly board: Board;
  private readonly ground: string;
  private changes?: ChangeTable;
  private readonly powers = new Map<string, PowerTable>();
  private readonly layouts = new Map<string, RowLayout>();
  private readonly drops = new Map<string, DropRows>();

  constructor(
    private readonly predictor: Predictor,
    private readonly faults: readonly Fault[],
    private readonly absent: ReadonlySet<string>,
    mended: ReadonlySet<string>,
  ) {
    this.board = predictor.board;
    this.ground = groundNet(this.board);
    this.active = faults.map((f) => (isGone(f, absent, mended) ? [] : f.effects));
  }

  of(m: Measurement, id: string): TestTable {
    let table = this.tables.get(id);
    if (!table) {
      const recipe = this.recipe(m);
      this.tables.set(id, (table = buildTable(recipe, this.layoutOf(recipe))));
    }
    return table;
  }

  private layoutOf(recipe: TableRecipe): RowLayout {
    const { alike } = recipe;
    if (alike === undefined) return layOut(recipe);
    let layout = this.layouts.get(alike);
    if (!layout) this.layouts.set(alike, (layout = layOut(recipe)));
    return layout;
  }

  private recipe(m: Measurement): TableRecipe {
    switch (m.kind) {
      case 'ohm':
        return this.resistance(m, m.net, this.ground);
      case 'through':
        return this.absent.has(m.ref)
          ? this.constant(m)
          : this.resistance(m, ...throughNets(this.board, m.ref, m.line));
      case 'drop':
        return this.drop(m, m.net);
      case 'pin': {
        const net = partByRef(this.board, m.port)!.pins[m.pin];
        return net === undefined || net === this.ground || this.absent.has(m.port)
          ? this.constant(m)
          : this.drop(m, net);
      }
      case 'joint': {
        const net = partByRef(this.board, m.ref)!.pins[m.pin];
        return net === undefined || net === this.ground ? this.constant(m) : this.drop(m, net);
      }
      case 'look':
        return this.simple(m, (e) => (e.kind === 'pinOpen' || e.kind === 'dirty') && e.ref === m.ref);
      case 'image':
        return this.simple(m, (e) => e.kind === 'imageBad' && e.ref === m.ref);
      case 'volts':
        return this.volts(m);
      case 'works':
        return this.works(m);
      case 'usb':
      case 'shape':
      case 'talk':
      case 'tester':
      case 'swap':
        return this.atPort(m);
      case 'lift':
        throw new Error('a lift is read on the board without the part: ask the tables of that state');
    }
  }

  /** The prediction for two sets of effects together, by the plain predictor. */
  private predict(m: Measurement, first: readonly Effect[], second: readonly Effect[]): Prediction {
    const effects = [...first, ...second];
    const fault: Fault = { id: effectsText(effects) || 'sound', ref: '', words: '', weight: 0, effects };
    return this.predictor.predict(m, fault, this.absent, NONE);
  }

  private constant(m: Measurement): TableRecipe {
    return {
      keyOf: new Uint16Array(this.faults.length),
      keys: 1,
      rowName: () => 0,
      predict: () => this.predict(m, [], []),
    };
  }

  /** For tests that ask a yes or no of single effects. */
  private simple(m: Measurement, counts: (e: Effect) => boolean): TableRecipe {
    const relevant = this.active.map((effects) => effects.filter(counts));
    const { keyOf, keys, standsFor } = numberKeys(relevant.map((list) => (list.length > 0 ? 'yes' : '')));
    const effects = standsFor.map((f) => (f < 0 ? [] : relevant[f]));
    return {
      keyOf,
      keys,
      rowName: (a, b) => Number(a > 0 || b > 0),
      predict: (a, b) => this.predict(m, effects[a], effects[b]),
    };
  }

  private changeTable(): ChangeTable {
    return (this.changes ??= new ChangeTable(this.predictor.networkWithout(this.absent), this.active, this.ground));
  }

  private resistance(m: Measurement, p: string, q: string): TableRecipe {
    const changes = this.changeTable();
    const { keyOf, keys } = changes;
    const { seenAs, count, ohms } = changes.between(p, q);
    const names = Int32Array.from(ohms, (ohm) => Math.round(shownLogOhm(ohm) / ROW_DECADES));
    return {
      keyOf,
      keys,
      rowName: (a, b) => names[seenAs[a] * count + seenAs[b]],
      predict: (a, b) => this.predict(m, changes.effects[a], changes.effects[b]),
    };
  }

  /** A drop is a short where the net is pulled to ground; else what touches the net and the chip behind it decides. */
  private drop(m: Measurement, net: string): TableRecipe {
    let rows = this.drops.get(net);
    if (!rows) this.drops.set(net, (rows = this.dropRows(net)));
    const { effects, ...named } = rows;
    return {
      ...named,
      alike: `${m.kind === 'joint' ? 'joint' : 'drop'} ${net}`,
      predict: (a, b) => this.predict(m, effects[a], effects[b]),
    };
  }

  /** Keys and row names of drops on a net: twin contacts share them. */
  private dropRows(net: string): DropRows {
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
    const local = this.active.map((effects) => effects.filter(touches));
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
  private touching(net: string): (e: Effect) => boolean {
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

  private power(port: Port): PowerTable {
    let table = this.powers.get(port.id);
    if (!table) {
      table = new PowerTable(this.board, port, this.active, this.absent);
      this.powers.set(port.id, table);
    }
    return table;
  }

  private volts(m: Extract<Measurement, { kind: 'volts' }>): TableRecipe {
    const rail = this.board.rails.find((r) => r.id === m.rail)!;
    const port = this.board.ports.find((p) => p.id === rail.port) ?? this.board.ports[0];
    const power = this.power(port);
    const { keys, keyOf, effects, states } = power;
    const solved = power.stateOf('A out');
    const index = power.railIds.indexOf(rail.id);
    return {
      keyOf,
      keys,
      rowName: (a, b) => {
        const { up, talks } = states[solved[a * keys + b]];
        return up[index] !== 1 ? 0 : rail.expect.kind === 'bus' && talks ? 2 : 1;
      },
      predict: (a, b) => this.predict(m, effects[a], effects[b]),
    };
  }

  private atPort(m: Extract<Measurement, { port: string }>): TableRecipe {
    const port = this.board.ports.find((p) => p.id === m.port)!;
    const power = this.power(port);
    const { keys, keyOf, effects, states } = power;
    const [wayA, wayB] = [power.stateOf('A in'), power.stateOf('B in')];
    const way = 'side' in m && m.side === 'B' ? wayB : wayA;
    const cc = port.sides.find((s) => s.side === ('side' in m ? m.side : 'A'))!.ccNet;
    const flags = effects.map((list) => outsideFlags(this.board, list, cc));
    const meterOf = Uint8Array.from(states, (s) => METERS.indexOf(s.meter));
    const talks = (a: number, b: number): boolean =>
      states[wayA[a * keys + b]].talks || states[wayB[a * keys + b]].talks;
    const charges = (a: number, b: number): boolean =>
      states[wayA[a * keys + b]].meter === 'healthy' && states[wayB[a * keys + b]].meter === 'healthy';
    // Row names are numbers: texts for every pair took half of the time of all tables (measured).
    const rowName = (a: number, b: number): number => {
      const [x, y] = [flags[a], flags[b]];
      const bits = x.bits | y.bits;
      const supplies = 3 * Math.min(x.supply, y.supply) + Math.max(x.supply, y.supply);
      switch (m.kind) {
        case 'usb':
          return supplies > 0 ? -supplies : 2 * meterOf[way[a * keys + b]] + Number((bits & DIRTY) > 0);
        case 'shape':
        case 'talk':
          return (meterOf[way[a * keys + b]] * 9 + supplies) * ALL_BITS + (bits & ~PIN);
        case 'tester':
          return 2 * Number(talks(a, b)) + Number((bits & PIN) > 0);
        default: {
          const what = m.kind === 'swap' ? m.what : undefined;
          const [p, q] = [x.thing === what ? 0 : a, y.thing === what ? 0 : b];
          const otherOutside = flags[p].thing !== undefined || flags[q].thing !== undefined;
          return 2 * Number(otherOutside) + Number(charges(p, q));
        }
      }
    };
    const alike = m.kind === 'shape' || m.kind === 'talk' ? `shape ${port.id} ${m.side}` : undefined;
    return { keyOf, keys, rowName, alike, predict: (a, b) => this.predict(m, effects[a], effects[b]) };
  }

  /** A function fails where one of its parts is hit, or where its rails stay down at every port. */
  private works(m: Extract<Measurement, { kind: 'works' }>): TableRecipe {
    const fn = this.board.functions.find((f) => f.id === m.fn)!;
    const powers = this.board.ports.map((port) => this.power(port));
    const direct = this.active.map((effects) => effects.length > 0 && this.predictor.breaksDirectly(fn, effects));
    const texts = this.active.map((_, f) => {
      if (direct[f]) return 'direct';
      const keys = powers.map((p) => p.keyOf[f]);
      return keys.every((k) => k === 0) ? '' : keys.join(' ');
    });
    const { keyOf, keys, standsFor } = numberKeys(texts);
    const keysAt = standsFor.map((f) => powers.map((p) => (f < 0 ? 0 : p.keyOf[f])));
    const broken = standsFor.map((f) => f >= 0 && direct[f]);
    const absentPart = fn.parts.some((ref) => this.absent.has(ref));
    const down = powers.map((p) => {
      const solved = p.stateOf('A in');
      const needed = fn.rails.map((id) => p.railIds.indexOf(id));
      return { solved, keys: p.keys, isDown: p.states.map(({ up }) => needed.some((i) => up[i] !== 1)) };
    });
    const effects = standsFor.map((f) => (f < 0 ? [] : this.active[f]));
    const fails = (a: number, b: number): boolean =>
      absentPart ||
      broken[a] ||
      broken[b] ||
      down.every(({ isDown, solved, keys: k }, i) => isDown[solved[keysAt[a][i] * k + keysAt[b][i]]]);
    return {
      keyOf,
      keys,
      rowName: (a, b) => Number(fails(a, b)),
      predict: (a, b) => this.predict(m, effects[a], effects[b]),
    };
  }
}

interface Flags {
  /** 1 a poor charger, 2 a poor cable, else 0. */
  readonly supply: number;
  readonly thing?: OutsideThing;
  readonly bits: number;
}

const METERS = Object.keys(METER_WORDS) as MeterCase[];
const IMAGE = 1;
const LOAD = 2;
const MISSING = 4;
/** The contact of the CC line in use is dirty. */
const DIRTY = 8;
const PIN = 16;
const ALL_BITS = 32;

/** What the port's tests ask beside the power solution. */
function outsideFlags(board: Board, effects: readonly Effect[], cc: string): Flags {
  const outside = effects.find((e) => e.kind === 'outside');
  const bits = effects.map((e) => {
    switch (e.kind) {
      case 'imageBad':
        return IMAGE;
      case 'load':
        return LOAD;
      case 'dirty':
        return e.net === cc ? DIRTY : 0;
      case 'pinOpen':
        return PIN;
      case 'dead':
      case 'open':
        return partByRef(board, e.ref)?.required === true ? MISSING : 0;
      default:
        return 0;
    }
  });
  return {
    supply: outside?.what === 'charger' ? 1 : outside?.what === 'cable' ? 2 : 0,
    thing: outside?.what,
    bits: bits.reduce((all: number, bit) => all | bit, 0),
  };
}
