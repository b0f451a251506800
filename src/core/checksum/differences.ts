/** Differences are counted by blocks of so many bytes. */
const BLOCK = 64;

/** Between which of several images ranges differ, known at once from counts made beforehand. */
export class Differences {
  /** For each image and each before it: how many blocks up to a place differ. */
  private readonly counts: readonly (readonly Uint32Array[])[];

  constructor(private readonly images: readonly Uint8Array[]) {
    this.counts = images.map((image, k) => images.slice(0, k).map((before) => differingBlocks(image, before)));
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
