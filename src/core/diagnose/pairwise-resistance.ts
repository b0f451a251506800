import type { Effect } from './faults';
import { LEADS_OHM } from './measurements/scale';
import {
  renewedResistance,
  shermanMorrison,
  woodbury,
  type ConductanceChange,
  type ResistanceNetwork,
} from './network';
import { conductanceChanges } from './circuit-model';
import { numberKeys } from './outcome-partition';

/**
 * Up to so many changes every pair is worked out that could move each other. On larger boards a change that alone moves a
 * reading by less than a tenth of what tells two rows apart is taken as unseen there, in pairs too.
 */
const EXACT_KEYS = 400;
const MOVED_DECADES = 0.004;

/** A changed conductance between two nets by number. */
interface Path {
  readonly a: number;
  readonly b: number;
  readonly siemens: number;
}

/** What a fault changes. */
interface Change {
  readonly plain: readonly ConductanceChange[];
  /** The same with its nets by number. */
  readonly paths: readonly Path[];
  /** The network with it in: for several changes at once, and where an update would be rounding, a path that leaves a net hanging. */
  readonly renewed?: ResistanceNetwork;
}

/** What of all changes is seen between two points. */
export interface SeenChanges {
  /** Number of each change as seen from here; 0 for those that change nothing here. */
  readonly seenAs: Uint16Array;
  /** The changes that are told apart here, by key; the first stands for all that change nothing here. */
  readonly changeOf: readonly number[];
  /** Key of each fault as seen from here; points that see the same changes share it. */
  readonly keyOf: Uint16Array;
  /** How many are told apart here. */
  readonly count: number;
  /** ohms[x · count + y]: resistance with the changes seen as x and y. */
  readonly ohms: Float64Array;
}

/** Resistances between two points under every pair of conductance changes. */
export class PairwiseResistance {
  readonly keyOf: Uint16Array;
  readonly keys: number;
  /** The effects that a key stands for. */
  readonly effects: readonly (readonly Effect[])[];
  private readonly changes: readonly (Change | undefined)[];
  /** transfers[i · keys + j] between change i and change j, their first paths. */
  private readonly transfers: Float64Array;
  /** 1 where any path of change i moves any path of change j: most lie on islands of their own. */
  private readonly linked: Uint8Array;
  private readonly kept = new Map<string, SeenChanges>();
  private readonly numberings = new Map<string, { seenAs: Uint16Array; keyOf: Uint16Array }>();

  constructor(
    private readonly network: ResistanceNetwork,
    active: readonly (readonly Effect[])[],
    ground: string,
  ) {
    const conducting = active.map((effects) =>
      effects.filter((e) => e.kind === 'shunt' || e.kind === 'bridge' || e.kind === 'open' || e.kind === 'drift'),
    );
    const lists = conducting.map((effects) => conductanceChanges(effects, network, ground));
    const { keyOf, keys, standsFor } = numberKeys(
      lists.map((list) => list.map((c) => `${c.a} ${c.b} ${c.siemens}`).join('|')),
    );
    this.keyOf = keyOf;
    this.keys = keys;
    this.effects = standsFor.map((f) => (f < 0 ? [] : conducting[f]));
    this.changes = standsFor.map((f) => (f < 0 ? undefined : this.prepare(lists[f])));
    this.transfers = new Float64Array(keys * keys);
    this.linked = new Uint8Array(keys * keys);
    this.changes.forEach((x, i) => {
      this.changes.forEach((y, j) => {
        if (!x || !y) return;
        this.transfers[i * keys + j] = between(network, x.paths[0], y.paths[0]);
        this.linked[i * keys + j] = Number(x.paths.some((u) => y.paths.some((v) => between(network, u, v) !== 0)));
      });
    });
  }

  private prepare(plain: readonly ConductanceChange[]): Change {
    const { network } = this;
    const paths = plain.map((c): Path => ({ a: network.nodeAt(c.a), b: network.nodeAt(c.b), siemens: c.siemens }));
    const [{ a, b, siemens }] = paths;
    const sound = paths.length === 1 && shermanMorrison(0, siemens, 0, network.transferAt(a, b, a, b)) !== undefined;
    return { plain, paths, renewed: sound ? undefined : network.withChanges(plain) };
  }

  /** Resistances p–q under the changes that are seen from there. Kept: twin contacts ask for the same net. */
  between(p: string, q: string): SeenChanges {
    const name = `${p} ${q}`;
    let seen = this.kept.get(name);
    if (!seen) this.kept.set(name, (seen = this.seenBetween(p, q)));
    return seen;
  }

  private seenBetween(p: string, q: string): SeenChanges {
    const { changes, network, linked } = this;
    const probe: Path = { a: network.nodeAt(p), b: network.nodeAt(q), siemens: 0 };
    const healthy = between(network, probe, probe);
    const isExact = this.keys <= EXACT_KEYS;
    const near = changes.map((x, k) =>
      x ? (isExact ? touches(network, probe, x) : this.moves(probe, x, k, healthy)) : false,
    );
    const nearKeys = [...near.keys()].filter((k) => near[k]);
    // Most changes lie on islands of their own: neither they nor what they move is seen here, and 0 stands for them.
    const changeOf = [...near.keys()].filter(
      (k) => k === 0 || near[k] || (isExact && nearKeys.some((n) => linked[k * this.keys + n] === 1)),
    );
    const { seenAs, keyOf } = this.numbered(changeOf);
    const c = Float64Array.from(changes, (x) => (x ? between(network, probe, x.paths[0]) : 0));
    const alone = Float64Array.from(changes, (x, k) =>
      x && near[k] ? this.single(probe, x, k, healthy, c[k]) : healthy,
    );
    const count = changeOf.length;
    const ohms = new Float64Array(count * count);
    changeOf.forEach((a, row) => {
      for (let column = 0; column <= row; column++) {
        const b = changeOf[column];
        // Changes that do not move each other add up.
        const ohm = linked[a * this.keys + b]
          ? (this.pair(probe, a, b, healthy, c, alone) ?? this.anew(p, q, a, b))
          : alone[a] + alone[b] - healthy;
        ohms[row * count + column] = ohm;
        ohms[column * count + row] = ohm;
      }
    });
    return { seenAs, changeOf, keyOf, count, ohms };
  }

  /** On a large board: whether a change alone moves the reading at all that it could be told. */
  private moves(probe: Path, x: Change, k: number, healthy: number): boolean {
    if (!touches(this.network, probe, x)) return false;
    const alone = this.single(probe, x, k, healthy, between(this.network, probe, x.paths[0]));
    return Math.abs(Math.log10((alone + LEADS_OHM) / (healthy + LEADS_OHM))) > MOVED_DECADES;
  }

  /** Numbers of the changes that are seen, by change and by fault: one pair of lists for all points that see the same. */
  private numbered(changeOf: readonly number[]): { seenAs: Uint16Array; keyOf: Uint16Array } {
    const name = changeOf.join(' ');
    let found = this.numberings.get(name);
    if (!found) {
      const seenAs = new Uint16Array(this.keys);
      changeOf.forEach((k, at) => (seenAs[k] = at));
      this.numberings.set(name, (found = { seenAs, keyOf: this.keyOf.map((k) => seenAs[k]) }));
    }
    return found;
  }

  private single(probe: Path, { renewed, paths }: Change, k: number, healthy: number, c: number): number {
    if (renewed) return between(renewed, probe, probe);
    return shermanMorrison(healthy, paths[0].siemens, c, this.transfers[k * this.keys + k])!;
  }

  private pair(
    probe: Path,
    a: number,
    b: number,
    healthy: number,
    c: Float64Array,
    alone: Float64Array,
  ): number | undefined {
    const { changes, keys, transfers: t, network } = this;
    const [first, second] = [changes[a]!, changes[b]!];
    if (a === b) {
      // The same shorts twice conduct twice as well; the same path cannot open twice.
      if (first.paths[0].siemens < 0) return alone[a];
      if (first.renewed) return afterAll(network, probe, [...first.paths, ...first.paths]);
      return shermanMorrison(healthy, 2 * first.paths[0].siemens, c[a], t[a * keys + a]);
    }
    if (first.renewed && second.renewed) return undefined;
    if (first.renewed || second.renewed) {
      const [base, k, other] = first.renewed ? [first.renewed, a, second] : [second.renewed!, b, first];
      const [path] = other.paths;
      return shermanMorrison(alone[k], path.siemens, between(base, probe, path), between(base, path, path));
    }
    return woodbury(healthy, first.paths[0].siemens, second.paths[0].siemens, {
      c1: c[a],
      c2: c[b],
      t11: t[a * keys + a],
      t12: t[a * keys + b],
      t22: t[b * keys + b],
    });
  }

  /** The network built anew, for the few pairs that an update cannot tell. */
  private anew(p: string, q: string, a: number, b: number): number {
    const changes = [this.changes[a], this.changes[b]].flatMap((x) => x?.plain ?? []);
    return this.network.withChanges(changes).resistanceOhm(p, q);
  }
}

/** True where a change is on the island of the probe. */
const touches = (network: ResistanceNetwork, probe: Path, { paths }: Change): boolean =>
  paths.some((y) => between(network, probe, y) !== 0);

/** Potential difference over one path for one ampere driven through another. */
const between = (network: ResistanceNetwork, x: Path, y: Path): number => network.transferAt(x.a, x.b, y.a, y.b);

/** Resistance at the probe after any number of changes. */
const afterAll = (network: ResistanceNetwork, probe: Path, paths: readonly Path[]): number | undefined =>
  renewedResistance(
    between(network, probe, probe),
    paths.map((x) => x.siemens),
    paths.map((x) => between(network, probe, x)),
    paths.map((x) => paths.map((y) => between(network, x, y))),
  );
