/**
 * A sparse symmetric positive definite matrix, factored as L·D·Lᵀ with the unknown of the fewest neighbours eliminated first,
 * and columns of its inverse as they are asked for. Source: minimum-degree ordering, Tinney & Walker (1967); the elimination
 * is the textbook one (Golub & Van Loan, Matrix Computations).
 */
export class SparseSpd {
  private readonly order: Int32Array;
  private readonly diagonal: Float64Array;
  /** Below the diagonal, column by column: rows and values of L. */
  private readonly rows: Int32Array[] = [];
  private readonly values: Float64Array[] = [];
  private readonly columns = new Map<number, Float64Array>();

  /**
   * @param diagonal of n entries.
   * @param entries off the diagonal, each pair once: row, column, value; entries of one place add up.
   */
  constructor(diagonal: Float64Array, entries: readonly (readonly [number, number, number])[]) {
    const n = diagonal.length;
    this.diagonal = diagonal.slice();
    this.order = new Int32Array(n);
    const beside = Array.from({ length: n }, () => new Map<number, number>());
    const add = (i: number, j: number, value: number): void => {
      beside[i].set(j, (beside[i].get(j) ?? 0) + value);
      beside[j].set(i, (beside[j].get(i) ?? 0) + value);
    };
    for (const [i, j, value] of entries) add(i, j, value);
    const next = new DegreeQueue(beside.map((b) => b.size));
    for (let k = 0; k < n; k++) {
      const pivot = next.take();
      this.order[k] = pivot;
      const row = [...beside[pivot]];
      const d = this.diagonal[pivot];
      for (const [i, a] of row) {
        beside[i].delete(pivot);
        this.diagonal[i] -= (a * a) / d;
      }
      for (let x = 0; x < row.length; x++)
        for (let y = x + 1; y < row.length; y++) add(row[x][0], row[y][0], (-row[x][1] * row[y][1]) / d);
      for (const [i] of row) next.put(i, beside[i].size);
      this.rows.push(Int32Array.from(row, ([i]) => i));
      this.values.push(Float64Array.from(row, ([, a]) => a / d));
      beside[pivot] = new Map();
    }
  }

  /** Column j of the inverse; worked out once. */
  inverseColumn(j: number): Float64Array {
    let column = this.columns.get(j);
    if (!column) this.columns.set(j, (column = this.solvedFor(j)));
    return column;
  }

  private solvedFor(j: number): Float64Array {
    const { order, diagonal, rows, values } = this;
    const x = new Float64Array(order.length);
    x[j] = 1;
    for (let k = 0; k < order.length; k++) {
      const at = x[order[k]];
      if (at === 0) continue;
      for (let e = 0; e < rows[k].length; e++) x[rows[k][e]] -= values[k][e] * at;
    }
    for (let k = order.length - 1; k >= 0; k--) {
      let at = x[order[k]] / diagonal[order[k]];
      for (let e = 0; e < rows[k].length; e++) at -= values[k][e] * x[rows[k][e]];
      x[order[k]] = at;
    }
    return x;
  }
}

/** Unknowns by how many neighbours they have, the fewest first; of equals any. */
class DegreeQueue {
  private readonly buckets: Set<number>[] = [];
  private readonly degrees: number[];
  private least = 0;

  constructor(degrees: readonly number[]) {
    this.degrees = [...degrees];
    degrees.forEach((degree, i) => this.bucket(degree).add(i));
  }

  private bucket(degree: number): Set<number> {
    return (this.buckets[degree] ??= new Set());
  }

  put(i: number, degree: number): void {
    this.bucket(this.degrees[i]).delete(i);
    this.degrees[i] = degree;
    this.bucket(degree).add(i);
    this.least = Math.min(this.least, degree);
  }

  take(): number {
    while (!this.buckets[this.least] || this.buckets[this.least].size === 0) this.least += 1;
    const [first] = this.buckets[this.least];
    this.buckets[this.least].delete(first);
    return first;
  }
}
