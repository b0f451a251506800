import { LAYERS_TOLERANCE_K, layersError, layersFor, type Column } from './layers';

const wall = (thicknessMm: number, heightMm: number, more: Partial<Column> = {}): Column => ({
  slab: { thicknessMm, k: 0.4, kInPlane: 50, heatCapacity: 2.3e6 },
  body: { thicknessMm: heightMm, k: 0.8, heatCapacity: 1.7e6, widthMm: 6 },
  contact: 2e5,
  ...more,
});
const sum = (list: readonly number[]): number => list.reduce((a, b) => a + b, 0);

test.each([
  [0.6, 0.5],
  [0.8, 0.9],
  [1.6, 1.2],
])(
  'a board of %p mm with a body of %p mm gets layers that keep the stated error, thin ones under the body',
  (slab, body) => {
    const column = wall(slab, body);
    const layers = layersFor(column);
    expect(sum(layers.slab)).toBeCloseTo(1, 9);
    expect(sum(layers.body)).toBeCloseTo(1, 9);
    expect([...layers.slab]).toEqual([...layers.slab].sort((a, b) => b - a));
    expect(layersError(column, layers)).toBeLessThanOrEqual(LAYERS_TOLERANCE_K);
  },
);

test('a thicker board never gets fewer layers, and three even ones would be kelvins off', () => {
  const counts = [0.4, 0.8, 1.2, 1.6, 2.4].map((mm) => layersFor(wall(mm, 0.8)).slab.length);
  expect(counts).toEqual([...counts].sort((a, b) => a - b));
  expect(layersError(wall(1, 0.8), { slab: [1 / 3, 1 / 3, 1 / 3], body: [0.5, 0.5] })).toBeGreaterThan(2);
});
