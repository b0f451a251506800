/** Differences are counted by blocks of so many bytes. */
const BLOCK = 64;

/** Places round the changes of a range. */
export interface Changes {
  readonly earliest: number;
  readonly first: number;
  readonly last: number;
  readonly latest: number;
}

/** Between which of several images ranges differ, known at once from counts made beforehand. */
export class Differences {
  /** For each image and each before it: how many blocks up to a place differ. */
  private readonly counts: readonly (readonly Uint32Array[])[];

  private readonly blocks: number;

  constructor(private readonly images: readonly Uint8Array[]) {
    this.blocks = Math.ceil((images[0]?.length ?? 0) / BLOCK);
    this.counts = images.map((image, k) => images.slice(0, k).map((before) => differingBlocks(image, before)));
  }

  /**
   * Where the images change round a range: its first and last change, and how far it could begin sooner and end later without
   * another one. Places of bytes, by whole blocks.
   */
  changed(from: number, to: number): Changes {
    const [a, b] = [Math.floor(from / BLOCK), Math.ceil(to / BLOCK)];
    let [first, last] = [a, b - 1];
    while (first < b && !this.differsAt(first)) first++;
    while (last > first && !this.differsAt(last)) last--;
    let [earliest, latest] = [a, b];
    while (earliest > 0 && !this.differsAt(earliest - 1)) earliest--;
    while (latest < this.blocks && !this.differsAt(latest)) latest++;
    return {
      earliest: Math.min(from, earliest * BLOCK),
      first: Math.max(from, first * BLOCK),
      last: Math.min(to, (last + 1) * BLOCK),
      latest: Math.max(to, latest * BLOCK),
    };
  }

  private differsAt(block: number): boolean {
    return this.counts.some((before) => before.some((count) => count[block + 1] > count[block]));
  }

  /** How many different contents that are not one repeated byte a range has; only its whole blocks are looked at. */
  telling(from: number, to: number): number {
    const [first, last] = [Math.ceil(from / BLOCK), Math.max(Math.ceil(from / BLOCK), Math.floor(to / BLOCK))];
    return this.images.filter((image, k) => {
      if (this.counts[k].some((count) => count[last] === count[first])) return false;
      for (let i = from + 1; i < to; i++) if (image[i] !== image[from]) return true;
      return false;
    }).length;
  }
}

function differingBlocks(a: Uint8Array, b: Uint8Array): Uint32Array {
  const counts = new Uint32Array(Math.ceil(a.length / BLOCK) + 1);
  for (let block = 0; block + 1 < counts.length; block++) {
    let differs = 0;
    const end = Math.min(a.length, (block + 1) * BLOCK);
    for (let i = block * BLOCK; i < end && differs === 0; i++) if (a[i] !== b[i]) differs = 1;
    counts[block + 1] = counts[block] + differs;
  }
  return counts;
}
