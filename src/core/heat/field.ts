import { cellAt, tapsAt } from './edges';
import type { HeatRun } from './simulate';

/** A frame on an even grid, for drawing: row-major, NaN outside the outline. */
export interface EvenField {
  readonly columns: number;
  readonly rows: number;
  readonly tempsC: Float32Array;
}

/** For every even sample, the two cells it lies between and the share of the second. */
interface Taps {
  readonly lower: Int32Array;
  readonly share: Float64Array;
}

/**
 * Board surface at one point at every sample of a run, °C, by straight lines between cell centres; the cell's own where a neighbour
 * lies outside the outline.
 * @throws when the point is not on the board.
 */
export function surfaceAt(run: Pick<HeatRun, 'xEdgesMm' | 'yEdgesMm' | 'frames'>, xMm: number, yMm: number): number[] {
  const nx = run.xEdgesMm.length - 1;
  const [x, y] = [cellAt(run.xEdgesMm, xMm), cellAt(run.yEdgesMm, yMm)];
  const isOn = (edges: Float64Array, at: number): boolean => at >= edges[0] && at <= edges[edges.length - 1];
  const own = y * nx + x;
  if (!isOn(run.xEdgesMm, xMm) || !isOn(run.yEdgesMm, yMm) || Number.isNaN(run.frames[0][own]))
    throw new Error(`Expected a point on the board; got ${xMm}, ${yMm}.`);
  const taps = tapsAt(run.xEdgesMm, xMm).flatMap(([i, shareX]) =>
    tapsAt(run.yEdgesMm, yMm).map(([j, shareY]): [number, number] => [j * nx + i, shareX * shareY]),
  );
  return run.frames.map((frame) => {
    const mean = taps.reduce((sum, [cell, share]) => sum + share * frame[cell], 0);
    return Number.isNaN(mean) ? frame[own] : mean;
  });
}

/**
 * Resamples one frame of a run by linear interpolation between cell centres. Where a neighbour lies outside the
 * outline, the sample takes the cell it lies in.
 */
export function evenField(
  run: Pick<HeatRun, 'xEdgesMm' | 'yEdgesMm'>,
  frame: Float32Array,
  columns: number,
  rows: number,
): EvenField {
  const nx = run.xEdgesMm.length - 1;
  const tx = tapsOf(run.xEdgesMm, columns);
  const ty = tapsOf(run.yEdgesMm, rows);
  const tempsC = new Float32Array(columns * rows);
  for (let r = 0; r < rows; r++) {
    for (let c = 0; c < columns; c++) {
      const [x0, y0, fx, fy] = [tx.lower[c], ty.lower[r], tx.share[c], ty.share[r]];
      const a = frame[y0 * nx + x0];
      const b = frame[y0 * nx + x0 + 1];
      const d = frame[(y0 + 1) * nx + x0];
      const e = frame[(y0 + 1) * nx + x0 + 1];
      const even = (a * (1 - fx) + b * fx) * (1 - fy) + (d * (1 - fx) + e * fx) * fy;
      tempsC[r * columns + c] = Number.isNaN(even) ? frame[(y0 + Math.round(fy)) * nx + x0 + Math.round(fx)] : even;
    }
  }
  return { columns, rows, tempsC };
}

function tapsOf(edges: Float64Array, samples: number): Taps {
  const n = edges.length - 1;
  const centre = (i: number): number => (edges[i] + edges[i + 1]) / 2;
  const lower = new Int32Array(samples);
  const share = new Float64Array(samples);
  const [start, end] = [edges[0], edges[n]];
  for (let s = 0, i = 0; s < samples; s++) {
    const at = start + ((s + 0.5) / samples) * (end - start);
    while (i < n - 2 && centre(i + 1) < at) i++;
    lower[s] = i;
    share[s] = Math.min(1, Math.max(0, (at - centre(i)) / (centre(i + 1) - centre(i))));
  }
  return { lower, share };
}
