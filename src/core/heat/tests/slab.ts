import { emptyGrid, type HeatGrid } from '../grid';
import type { Films } from '../solver';

export interface Material {
  readonly kxy: number;
  readonly kz: number;
  readonly heatCapacity: number;
}

const even = (count: number, length: number): Float64Array => new Float64Array(count).fill(length / count);

/** A uniform slab of one material. */
export function slab(
  cells: { nx: number; ny: number },
  sizeM: { x: number; y: number },
  layersM: readonly number[],
  material: Material,
): HeatGrid {
  const grid = emptyGrid(even(cells.nx, sizeM.x), even(cells.ny, sizeM.y), Float64Array.from(layersM));
  grid.kxy.fill(material.kxy);
  grid.kz.fill(material.kz);
  grid.heatCapacity.fill(material.heatCapacity);
  return grid;
}

/** Films of the same conductance and temperature over each whole face. */
export function evenFilms(
  grid: HeatGrid,
  top: { film: number; airC: number },
  bottom: { film: number; airC: number },
): Films {
  const plane = grid.nx * grid.ny;
  const fill = (value: number): Float64Array => new Float64Array(plane).fill(value);
  return {
    topFilm: fill(top.film),
    topC: fill(top.airC),
    bottomFilm: fill(bottom.film),
    bottomC: fill(bottom.airC),
    sideFilm: 0,
    sideC: 0,
  };
}
