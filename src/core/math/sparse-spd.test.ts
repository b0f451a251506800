import { invertSpd, seededRandom, SparseSpd } from './index';

/** A random network as a grounded Laplacian: dense for the one, in entries for the other. */
function laplacianOf(n: number, edges: number, random: () => number) {
  const dense = new Float64Array(n * n);
  const diagonal = new Float64Array(n);
  const entries: [number, number, number][] = [];
  const ground = (i: number, siemens: number): void => {
    diagonal[i] += siemens;
    dense[i * n + i] += siemens;
  };
  for (let i = 0; i < n; i++) ground(i, 1e-7);
  for (let e = 0; e < edges; e++) {
    const [i, j] = [Math.floor(n * random()), Math.floor(n * random())];
    const siemens = 10 ** (-5 * random());
    if (i === j) {
      ground(i, siemens);
      continue;
    }
    for (const k of [i, j]) ground(k, siemens);
    dense[i * n + j] -= siemens;
    dense[j * n + i] -= siemens;
    entries.push([i, j, -siemens]);
  }
  return { dense, diagonal, entries };
}

// Beside it the dense inverse, a way of its own.
test.each([
  [1, 2],
  [2, 3],
  [12, 10],
  [40, 60],
  [120, 130],
])('columns of the inverse of a network of %d nets and %d resistances equal those of the dense inverse', (n, edges) => {
  const { dense, diagonal, entries } = laplacianOf(n, edges, seededRandom(n));
  const inverse = invertSpd(dense, n);
  const sparse = new SparseSpd(diagonal, entries);
  for (let j = 0; j < n; j++) {
    const column = sparse.inverseColumn(j);
    const size = Math.sqrt(inverse[j * n + j]);
    for (let i = 0; i < n; i++)
      expect(Math.abs(column[i] - inverse[i * n + j]) / (size * Math.sqrt(inverse[i * n + i]))).toBeLessThan(1e-6);
  }
});

test('two resistances in series to ground add up: 3 Ω and 4 Ω', () => {
  const sparse = new SparseSpd(Float64Array.of(1 / 3 + 1 / 4, 1 / 4), [[0, 1, -1 / 4]]);
  expect(sparse.inverseColumn(1)[1]).toBeCloseTo(7, 12);
  expect(sparse.inverseColumn(1)[0]).toBeCloseTo(3, 12);
  expect(sparse.inverseColumn(0)[0]).toBeCloseTo(3, 12);
});
