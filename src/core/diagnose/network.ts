import { groundNet, type Board } from '../board';
import { invertSpd } from '../math';
import { boardElements, type Element } from './elements';

/** Input leakage from every net to ground, ohm: keeps the network solvable. Engineering estimate. */
const LEAK_OHM = 2e7;

/** A change of conductance between two nets, siemens; negative where a path opens. */
export interface ConductanceChange {
  readonly a: string;
  readonly b: string;
  readonly siemens: number;
}

/**
 * The unpowered board as a network of resistances. The grounded Laplacian is inverted once; the resistance between
 * two nets under one changed conductance follows from its entries (Sherman–Morrison), so a fault costs a handful of
 * multiplications. Source: Sherman & Morrison (1950); effective resistance as quadratic form, standard circuit theory.
 */
export class ResistanceNetwork {
  private readonly nodeOf = new Map<string, number>();
  private readonly inverse: Float64Array;
  private readonly size: number;
  readonly elements: ReadonlyMap<string, Element>;

  constructor(nets: readonly string[], ground: string, elements: readonly Element[], leakOhm = LEAK_OHM) {
    for (const net of nets) if (net !== ground) this.nodeOf.set(net, this.nodeOf.size);
    this.size = this.nodeOf.size;
    this.elements = new Map(elements.map((e) => [e.id, e]));
    const laplacian = new Float64Array(this.size * this.size);
    for (let i = 0; i < this.size; i++) laplacian[i * this.size + i] = 1 / leakOhm;
    for (const e of elements) this.stamp(laplacian, e);
    this.inverse = invertSpd(laplacian, this.size);
  }

  /** The board's network without the parts in `absent`. */
  static ofBoard(board: Board, absent: ReadonlySet<string>): ResistanceNetwork {
    return new ResistanceNetwork(Object.keys(board.nets), groundNet(board), boardElements(board, absent));
  }

  private stamp(laplacian: Float64Array, e: Element): void {
    const i = this.nodeOf.get(e.a);
    const j = this.nodeOf.get(e.b);
    const g = 1 / e.ohm;
    if (i !== undefined) laplacian[i * this.size + i] += g;
    if (j !== undefined) laplacian[j * this.size + j] += g;
    if (i !== undefined && j !== undefined) {
      laplacian[i * this.size + j] -= g;
      laplacian[j * this.size + i] -= g;
    }
  }

  private entry(i: number | undefined, j: number | undefined): number {
    return i === undefined || j === undefined ? 0 : this.inverse[i * this.size + j];
  }

  /** (e_p − e_q)ᵀ G⁻¹ (e_a − e_b): the potential difference p–q for one ampere driven through a–b. */
  private transfer(p: string, q: string, a: string, b: string): number {
    const [ip, iq, ia, ib] = [p, q, a, b].map((net) => this.nodeOf.get(net));
    return this.entry(ip, ia) - this.entry(ip, ib) - this.entry(iq, ia) + this.entry(iq, ib);
  }

  /** Resistance in ohm between two nets, with at most one change applied. */
  resistanceOhm(p: string, q: string, change?: ConductanceChange): number {
    const healthy = this.transfer(p, q, p, q);
    if (!change) return healthy;
    const { a, b, siemens } = change;
    const cross = this.transfer(p, q, a, b);
    return healthy - (siemens * cross * cross) / (1 + siemens * this.transfer(a, b, a, b));
  }

  /** The change that takes one element out, or none when it is not on the board. */
  opening(elementId: string): ConductanceChange | undefined {
    const e = this.elements.get(elementId);
    return e && { a: e.a, b: e.b, siemens: -1 / e.ohm };
  }
}
