import type { Effect } from './faults';
import { afterOne, afterTwo, type ConductanceChange, type ResistanceNetwork } from './network';
import { conductanceChanges } from './predict';
import { numberKeys } from './table';

/** A conductance change with its nets by number. */
interface Change {
  readonly plain: ConductanceChange;
  readonly a: number;
  readonly b: number;
  readonly siemens: number;
  /** The network with this change in it, where an update of the whole one would be rounding: a path that leaves a net hanging. */
  readonly renewed?: ResistanceNetwork;
}

/** Resistances between two points under every pair of conductance changes. */
export class ChangeTable {
  readonly keyOf: Uint16Array;
  readonly keys: number;
  /** The effects that a key stands for. */
  readonly effects: readonly (readonly Effect[])[];
  private readonly changes: readonly (Change | undefined)[];
  /** transfers[i · keys + j] between change i and change j. */
  private readonly transfers: Float64Array;
  private readonly kept = new Map<string, Float64Array>();

  constructor(
    private readonly network: ResistanceNetwork,
    active: readonly (readonly Effect[])[],
    ground: string,
  ) {
    const conducting = active.map((effects) =>
      effects.filter((e) => e.kind === 'shunt' || e.kind === 'bridge' || e.kind === 'open'),
    );
    const lists = conducting.map((effects) => conductanceChanges(effects, network, ground));
    const { keyOf, keys, standsFor } = numberKeys(
      lists.map((list) => list.map((c) => `${c.a} ${c.b} ${c.siemens}`).join('|')),
    );
    this.keyOf = keyOf;
    this.keys = keys;
    this.effects = standsFor.map((f) => (f < 0 ? [] : conducting[f]));
    this.changes = standsFor.map((f) => (f < 0 ? undefined : this.prepare(lists[f][0])));
    this.transfers = new Float64Array(keys * keys);
    this.changes.forEach((x, i) => {
      this.changes.forEach((y, j) => {
        if (x && y) this.transfers[i * keys + j] = network.transferAt(x.a, x.b, y.a, y.b);
      });
    });
  }

  private prepare(plain: ConductanceChange): Change {
    const { network } = this;
    const { siemens } = plain;
    const [a, b] = [network.nodeAt(plain.a), network.nodeAt(plain.b)];
    const sound = afterOne(0, siemens, 0, network.transferAt(a, b, a, b)) !== undefined;
    return { plain, a, b, siemens, renewed: sound ? undefined : network.withChanges([plain]) };
  }

  /** ohms[a · keys + b]: resistance p–q with the changes of both keys. Kept: twin contacts ask for the same net. */
  between(p: string, q: string): Float64Array {
    const name = `${p} ${q}`;
    let ohms = this.kept.get(name);
    if (!ohms) this.kept.set(name, (ohms = this.allPairs(p, q)));
    return ohms;
  }

  private allPairs(p: string, q: string): Float64Array {
    const { keys, changes, network } = this;
    const [ip, iq] = [network.nodeAt(p), network.nodeAt(q)];
    const healthy = network.transferAt(ip, iq, ip, iq);
    const alone = changes.map((x) => (x?.renewed ?? network).transferAt(ip, iq, ip, iq));
    const c = Float64Array.from(changes, (x) => (x ? network.transferAt(ip, iq, x.a, x.b) : 0));
    const ohms = new Float64Array(keys * keys);
    for (let a = 0; a < keys; a++) {
      for (let b = 0; b <= a; b++) {
        const ohm = this.pair(ip, iq, a, b, healthy, alone, c) ?? this.anew(p, q, a, b);
        ohms[a * keys + b] = ohm;
        ohms[b * keys + a] = ohm;
      }
    }
    return ohms;
  }

  private pair(
    ip: number,
    iq: number,
    a: number,
    b: number,
    healthy: number,
    alone: readonly number[],
    c: Float64Array,
  ): number | undefined {
    const { changes, keys, transfers: t } = this;
    const [first, second] = [changes[a], changes[b]];
    if (!first || !second || a === b) {
      const k = first ? a : b;
      const change = changes[k];
      if (!change) return healthy;
      if (change.renewed) return alone[k];
      // The same short twice conducts twice as well; the same path cannot open twice.
      const siemens = first && second && change.siemens > 0 ? 2 * change.siemens : change.siemens;
      return afterOne(healthy, siemens, c[k], t[k * keys + k]);
    }
    if (first.renewed || second.renewed) {
      const [base, k, other] = first.renewed ? [first.renewed, a, second] : [second.renewed!, b, first];
      const through = base.transferAt(ip, iq, other.a, other.b);
      return afterOne(alone[k], other.siemens, through, base.transferAt(other.a, other.b, other.a, other.b));
    }
    return afterTwo(healthy, first.siemens, second.siemens, {
      c1: c[a],
      c2: c[b],
      t11: t[a * keys + a],
      t12: t[a * keys + b],
      t22: t[b * keys + b],
    });
  }

  /** The network built anew, for the few pairs that an update cannot tell. */
  private anew(p: string, q: string, a: number, b: number): number {
    const changes = [this.changes[a]?.plain, this.changes[b]?.plain].filter((x) => x !== undefined);
    return this.network.withChanges(changes).resistanceOhm(p, q);
  }
}
