import type { NetName, PartRef } from '../identities';
import { groundNet, type Board } from '../board';
import { SparseSpd, WITHIN_SDS, invertSpd } from '../math';
import { boardElements, type Element } from './elements';

/** Input leakage from every net to ground, ohm: keeps the network solvable. Engineering estimate. */
const LEAK_OHM = 2e7;
/** Below this share left of a path that was opened, rounding would speak: the network is built anew instead. */
const LEAST_SHARE = 1e-4;

const GROUND = -1;

/** A change of conductance between two nets, siemens; negative where a path opens. */
export interface ConductanceChange {
  readonly a: string;
  readonly b: string;
  readonly siemens: number;
}

/**
 * The unpowered board as a network of resistances. The grounded Laplacian is inverted once; the resistance between
 * two nets under a few changed conductances follows from its entries by a low-rank update, so a fault costs a handful
 * of multiplications. Source: Sherman & Morrison (1950), Woodbury (1950); effective resistance as quadratic form,
 * standard circuit theory.
 */
export class ResistanceNetwork {
  private readonly nodeOf: ReadonlyMap<string, number>;
  /** The island of each node, and the node's place in it: nets that only ground joins share no entry of the inverse. */
  private readonly islandOf: Int32Array;
  private readonly placeIn: Int32Array;
  private readonly islands: readonly Island[];
  private readonly renewed = new Map<string, ResistanceNetwork>();

  /**
   * @param list all elements; over a base those of the islands of `touched` alone, as they are now.
   * @param base a network with the same nets of which this one differs only by elements at the nodes `touched`; islands
   * without those are shared with it.
   */
  constructor(
    private readonly nets: readonly NetName[],
    private readonly ground: string,
    list: readonly Element[],
    private readonly leakOhm = LEAK_OHM,
    base?: { readonly network: ResistanceNetwork; readonly touched: readonly number[] },
  ) {
    this.nodeOf = base?.network.nodeOf ?? new Map(nets.filter((net) => net !== ground).map((net, i) => [net, i]));
    const size = this.nodeOf.size;
    this.islandOf = base?.network.islandOf.slice() ?? new Int32Array(size);
    this.placeIn = base?.network.placeIn.slice() ?? new Int32Array(size);
    const renewed = base ? base.network.sharingIslands(base.touched) : [...this.nodeOf.values()];
    this.islands = [
      ...(base?.network.islands ?? []),
      ...this.inverted(list, renewed, base?.network.islands.length ?? 0),
    ];
  }

  /** Nodes of all islands that hold one of these. */
  private sharingIslands(nodes: readonly number[]): number[] {
    return [...new Set(nodes.map((node) => this.islandOf[node]))].flatMap((island) => this.islands[island].nodes);
  }

  /**
   * The inverse of the grounded Laplacian over some nodes, island by island. A board falls into many small ones, so that this
   * is some twenty times quicker than one inverse of the whole (measured).
   * @param list the elements at those nodes. @param from number of the first of these islands.
   */
  private inverted(list: readonly Element[], nodes: readonly number[], from: number): Island[] {
    const here = list
      .map((element) => ({ element, i: this.nodeAt(element.a), j: this.nodeAt(element.b) }))
      .filter(({ i, j }) => i !== GROUND || j !== GROUND);
    const found = joined(nodes, here);
    const elements: Element[][] = found.map(() => []);
    found.forEach((island, k) =>
      island.forEach((node, place) => {
        this.islandOf[node] = from + k;
        this.placeIn[node] = place;
      }),
    );
    const laplacians = found.map(({ length: n }) => new Laplacian(n, 1 / this.leakOhm));
    for (const { element, i, j } of here) {
      const island = this.islandOf[i === GROUND ? j : i] - from;
      elements[island].push(element);
      const [r, c] = [i, j].map((node) => (node === GROUND ? GROUND : this.placeIn[node]));
      laplacians[island].add(r, c, 1 / element.ohm);
    }
    return found.map((island, k) => ({ nodes: island, elements: elements[k], inverse: laplacians[k].inverse() }));
  }

  /** The elements by their names. */
  get elements(): ReadonlyMap<string, Element> {
    return (this.byId ??= new Map(this.list().map((e) => [e.id, e])));
  }
  private byId?: ReadonlyMap<string, Element>;

  /** Those that are not known. */
  private get doubtful(): readonly Element[] {
    return (this.unknown ??= this.list().filter((e) => e.within !== undefined));
  }
  private unknown?: readonly Element[];

  /** All elements: those of the islands that are in use. */
  private list(): Element[] {
    return [...new Set(this.islandOf)].flatMap((island) => this.islands[island].elements);
  }

  /** The board's network without the parts in `absent`. */
  static ofBoard(board: Board, absent: ReadonlySet<PartRef>): ResistanceNetwork {
    return new ResistanceNetwork(Object.keys(board.nets), groundNet(board), boardElements(board, absent));
  }

  /** Number of a net for {@link transferAt}; ground is −1. Networks made from one another share the numbers. */
  nodeAt(net: NetName): number {
    return this.nodeOf.get(net) ?? GROUND;
  }

  /** (e_p − e_q)ᵀ G⁻¹ (e_a − e_b): the potential difference p–q for one ampere driven through a–b, nets by number. */
  transferAt(p: number, q: number, a: number, b: number): number {
    let sum = 0;
    if (p !== GROUND) {
      if (a !== GROUND) sum += this.entry(p, a);
      if (b !== GROUND) sum -= this.entry(p, b);
    }
    if (q !== GROUND) {
      if (a !== GROUND) sum -= this.entry(q, a);
      if (b !== GROUND) sum += this.entry(q, b);
    }
    return sum;
  }

  /** An entry of the inverse; none between islands. */
  private entry(i: number, j: number): number {
    const island = this.islandOf[i];
    if (island !== this.islandOf[j]) return 0;
    const { nodes, inverse } = this.islands[island];
    return inverse instanceof SparseSpd
      ? inverse.inverseColumn(this.placeIn[i])[this.placeIn[j]]
      : inverse[this.placeIn[i] * nodes.length + this.placeIn[j]];
  }

  transfer(p: string, q: string, a: string, b: string): number {
    return this.transferAt(this.nodeAt(p), this.nodeAt(q), this.nodeAt(a), this.nodeAt(b));
  }

  /** Resistance in ohm between two nets with changes applied: by an update, or in a network built anew where that would be rounding. */
  resistanceOhm(p: string, q: string, ...changes: readonly ConductanceChange[]): number {
    if (changes.length > 2) return this.afterMany(p, q, changes) ?? this.withChanges(changes).resistanceOhm(p, q);
    const [first, second] = changes;
    const healthy = this.transfer(p, q, p, q);
    if (!first) return healthy;
    const ohm = second
      ? woodbury(healthy, first.siemens, second.siemens, {
          c1: this.transfer(p, q, first.a, first.b),
          c2: this.transfer(p, q, second.a, second.b),
          t11: this.transfer(first.a, first.b, first.a, first.b),
          t12: this.transfer(first.a, first.b, second.a, second.b),
          t22: this.transfer(second.a, second.b, second.a, second.b),
        })
      : shermanMorrison(
          healthy,
          first.siemens,
          this.transfer(p, q, first.a, first.b),
          this.transfer(first.a, first.b, first.a, first.b),
        );
    return ohm ?? this.withChanges(second ? [first, second] : [first]).resistanceOhm(p, q);
  }

  private afterMany(p: string, q: string, changes: readonly ConductanceChange[]): number | undefined {
    return renewedResistance(
      this.transfer(p, q, p, q),
      changes.map((x) => x.siemens),
      changes.map((x) => this.transfer(p, q, x.a, x.b)),
      changes.map((x) => changes.map((y) => this.transfer(x.a, x.b, y.a, y.b))),
    );
  }

  /**
   * Spread of the resistance between two nets that comes of loads which are not known, log10 ohm: by its sensitivity to each,
   * ∂ln R/∂ln g = −g·v²/R with v the voltage across the load for one ampere through p–q (Tellegen, standard circuit theory),
   * the loads independent and log-normal. Good for small doubts, and the right size for large ones.
   * @returns of the board as it is, and of what is left where paths are cut: the widest of a single load in reach.
   */
  doubtDecades(p: string, q: string): { readonly whole: number; readonly widest: number } {
    const ohm = this.transfer(p, q, p, q);
    let squares = 0;
    let widest = 0;
    for (const load of this.doubtful) {
      const across = this.transfer(p, q, load.a, load.b);
      if (across === 0) continue;
      const sd = Math.log10(load.within!) / WITHIN_SDS;
      widest = Math.max(widest, sd);
      squares += ((across * across * sd) / (load.ohm * ohm)) ** 2;
    }
    return { whole: Math.sqrt(squares), widest };
  }

  /** The network built anew with the changes in it; kept. */
  withChanges(changes: readonly ConductanceChange[]): ResistanceNetwork {
    const key = changes.map((c) => `${c.a} ${c.b} ${c.siemens}`).join('|');
    let network = this.renewed.get(key);
    if (!network) {
      const touched = changes.flatMap((c) => [this.nodeAt(c.a), this.nodeAt(c.b)]).filter((node) => node !== GROUND);
      const base = { network: this, touched };
      const around = [...new Set(touched.map((node) => this.islandOf[node]))].flatMap((k) => this.islands[k].elements);
      network = new ResistanceNetwork(this.nets, this.ground, changed(around, changes), this.leakOhm, base);
      this.renewed.set(key, network);
    }
    return network;
  }

  /** The change that takes one element out, or none when it is not on the board. */
  opening(elementId: string): ConductanceChange | undefined {
    const e = this.elements.get(elementId);
    return e && { a: e.a, b: e.b, siemens: -1 / e.ohm };
  }
}

/** Nodes that are joined otherwise than over ground, in ascending order, with their part of the inverse. */
interface Island {
  readonly nodes: readonly number[];
  readonly elements: readonly Element[];
  /** Whole, row by row; of a large island its columns as they are asked for. */
  readonly inverse: Float64Array | SparseSpd;
}

/** Islands of more nets than this are factored sparsely: few of their nets are ever probed. Measured: from here on it is quicker. */
const MOST_DENSE = 48;

/** Conductances of one island, gathered. */
class Laplacian {
  private readonly diagonal: Float64Array;
  private readonly entries: [number, number, number][] = [];

  constructor(n: number, leak: number) {
    this.diagonal = new Float64Array(n).fill(leak);
  }

  add(r: number, c: number, siemens: number): void {
    if (r !== GROUND) this.diagonal[r] += siemens;
    if (c !== GROUND) this.diagonal[c] += siemens;
    if (r !== GROUND && c !== GROUND) this.entries.push([r, c, -siemens]);
  }

  inverse(): Float64Array | SparseSpd {
    const { diagonal, entries } = this;
    const n = diagonal.length;
    if (n > MOST_DENSE) return new SparseSpd(diagonal, entries);
    const dense = new Float64Array(n * n);
    for (let i = 0; i < n; i++) dense[i * n + i] = diagonal[i];
    for (const [r, c, value] of entries) {
      dense[r * n + c] += value;
      dense[c * n + r] += value;
    }
    return invertSpd(dense, n);
  }
}

/** The islands of some nodes under the conductances between them. */
function joined(nodes: readonly number[], paths: readonly { readonly i: number; readonly j: number }[]): number[][] {
  const beside = new Map<number, number[]>(nodes.map((node) => [node, []]));
  for (const { i, j } of paths) {
    if (i === GROUND || j === GROUND) continue;
    beside.get(i)!.push(j);
    beside.get(j)!.push(i);
  }
  const seen = new Set<number>();
  const found: number[][] = [];
  for (const start of nodes) {
    if (seen.has(start)) continue;
    seen.add(start);
    const island = [start];
    for (let k = 0; k < island.length; k++)
      for (const next of beside.get(island[k])!)
        if (!seen.has(next)) {
          seen.add(next);
          island.push(next);
        }
    found.push(island.sort((a, b) => a - b));
  }
  return found;
}

/** Elements with the changes made: opened ones out, weakened ones weaker, new paths in. */
function changed(list: readonly Element[], changes: readonly ConductanceChange[]): Element[] {
  let elements = [...list];
  changes.forEach(({ a, b, siemens }, i) => {
    if (siemens > 0) {
      elements.push({ id: `change ${i}`, ref: '', a, b, ohm: 1 / siemens });
      return;
    }
    // Only one of several alike: three controllers may load one net equally.
    const left = (e: Element): number => 1 / e.ohm + siemens;
    const isGone = (e: Element): boolean => Math.abs(left(e)) < 1e-9 / e.ohm;
    const there = (e: Element): boolean => e.a === a && e.b === b;
    const gone = elements.findIndex((e) => there(e) && isGone(e));
    const weaker = gone >= 0 ? -1 : elements.findIndex((e) => there(e) && left(e) > 0);
    elements = elements.flatMap((e, k) => (k === gone ? [] : k === weaker ? [{ ...e, ohm: 1 / left(e) }] : [e]));
  });
  return elements;
}

/**
 * Resistance after one change (Sherman–Morrison): R − g·c²/(1 + g·t). Undefined where the result would be rounding.
 * @param siemens g. @param c transfer between probe and change. @param t the change's own resistance before it.
 */
export function shermanMorrison(healthy: number, siemens: number, c: number, t: number): number | undefined {
  const share = 1 + siemens * t;
  return share < LEAST_SHARE ? undefined : healthy - (siemens * c * c) / share;
}

export interface TwoTransfers {
  readonly c1: number;
  readonly c2: number;
  readonly t11: number;
  readonly t12: number;
  readonly t22: number;
}

/**
 * Resistance after two changes (Woodbury): R − cᵀ(D⁻¹ + T)⁻¹c with D = diag(g₁, g₂), written without dividing by g.
 * Undefined where the result would be rounding.
 */
export function woodbury(healthy: number, g1: number, g2: number, x: TwoTransfers): number | undefined {
  const m11 = 1 + g1 * x.t11;
  const m22 = 1 + g2 * x.t22;
  const determinant = m11 * m22 - g1 * g2 * x.t12 * x.t12;
  if (m11 < LEAST_SHARE || m22 < LEAST_SHARE || determinant < LEAST_SHARE * m11 * m22) return undefined;
  const y1 = g1 * (m22 * x.c1 - g2 * x.t12 * x.c2);
  const y2 = g2 * (m11 * x.c2 - g1 * x.t12 * x.c1);
  return healthy - (x.c1 * y1 + x.c2 * y2) / determinant;
}

/**
 * Resistance after any number of changes (Woodbury): R − cᵀ(D⁻¹ + T)⁻¹c, as R − cᵀ·y with (I + D·T)·y = D·c, solved by
 * elimination. Undefined where the result would be rounding.
 * @param c transfer between probe and each change. @param t transfers between changes.
 */
export function renewedResistance(
  healthy: number,
  siemens: readonly number[],
  c: readonly number[],
  t: readonly (readonly number[])[],
): number | undefined {
  const n = siemens.length;
  const rows = siemens.map((g, i) => [...t[i].map((v, j) => g * v + (i === j ? 1 : 0)), g * c[i]]);
  for (let k = 0; k < n; k++) {
    const pivot = rows[k][k];
    if (Math.abs(pivot) < LEAST_SHARE) return undefined;
    for (let i = k + 1; i < n; i++) {
      const factor = rows[i][k] / pivot;
      for (let j = k; j <= n; j++) rows[i][j] -= factor * rows[k][j];
    }
  }
  const y = new Array<number>(n).fill(0);
  for (let k = n - 1; k >= 0; k--) {
    let sum = rows[k][n];
    for (let j = k + 1; j < n; j++) sum -= rows[k][j] * y[j];
    y[k] = sum / rows[k][k];
  }
  return healthy - y.reduce((sum, v, i) => sum + v * c[i], 0);
}
