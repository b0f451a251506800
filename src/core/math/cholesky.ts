/**
 * Inverse of a symmetric positive definite matrix by Cholesky factorisation A = L·Lᵀ.
 * Source: Golub & Van Loan, Matrix Computations, section 4.2 (from memory).
 *
 * @param a dense n×n matrix, row-major; read only.
 * @returns dense n×n inverse, row-major.
 * @throws when a pivot is not positive, that is, when the matrix is not positive definite.
 */
export function invertSpd(a: Float64Array, n: number): Float64Array {
  const l = choleskyOf(a, n);
  const inverse = new Float64Array(n * n);
  const column = new Float64Array(n);
  for (let k = 0; k < n; k++) {
    column.fill(0);
    column[k] = 1;
    solveLower(l, n, column, k);
    // The inverse is symmetric: of each column only the part from the diagonal down is worked out.
    solveUpper(l, n, column, k);
    for (let i = k; i < n; i++) inverse[i * n + k] = inverse[k * n + i] = column[i];
  }
  return inverse;
}

/**
 * Lower factor L of A = L·Lᵀ, row-major.
 * @throws when the matrix is not positive definite.
 */
export function choleskyOf(a: Float64Array, n: number): Float64Array {
  const l = new Float64Array(n * n);
  for (let j = 0; j < n; j++) {
    let pivot = a[j * n + j];
    for (let k = 0; k < j; k++) pivot -= l[j * n + k] ** 2;
    if (!(pivot > 0)) throw new Error(`matrix is not positive definite: pivot ${pivot} at row ${j}`);
    const d = Math.sqrt(pivot);
    l[j * n + j] = d;
    for (let i = j + 1; i < n; i++) {
      let sum = a[i * n + j];
      for (let k = 0; k < j; k++) sum -= l[i * n + k] * l[j * n + k];
      l[i * n + j] = sum / d;
    }
  }
  return l;
}

/** Solves L·x = b in place; entries of b before `first` are known to be zero. */
function solveLower(l: Float64Array, n: number, b: Float64Array, first: number): void {
  for (let i = first; i < n; i++) {
    let sum = b[i];
    for (let k = first; k < i; k++) sum -= l[i * n + k] * b[k];
    b[i] = sum / l[i * n + i];
  }
}

/** Solves Lᵀ·x = b in place, from the end down to entry `last`. */
function solveUpper(l: Float64Array, n: number, b: Float64Array, last: number): void {
  for (let i = n - 1; i >= last; i--) {
    let sum = b[i];
    for (let k = i + 1; k < n; k++) sum -= l[k * n + i] * b[k];
    b[i] = sum / l[i * n + i];
  }
}
