/** An offset where something begins or ends. */
export interface Landmark {
  readonly offset: number;
  /** 0 for the image's own ends, then 1 for the edges of its longest erased run, and on. */
  readonly rank: number;
}

/** A run of one repeated byte this long is a gap between things. Engineering estimate. */
const LEAST_RUN = 64;

/** Where an image's ranges are likely to begin and end: its own ends, and the edges of its longest runs of FF or 00. */
export function landmarksOf(images: readonly Uint8Array[], alignment: number, most: number): Landmark[] {
  const [bytes] = images;
  const runs: { from: number; to: number }[] = [];
  for (let at = 0; at < bytes.length;) {
    const value = bytes[at];
    let to = at + 1;
    while (to < bytes.length && bytes[to] === value) to++;
    if (to - at >= LEAST_RUN && (value === 0xff || value === 0)) runs.push({ from: at, to });
    at = to;
  }
  runs.sort((a, b) => b.to - b.from - (a.to - a.from));
  const marks = new Map<number, number>([
    [0, 0],
    [bytes.length, 0],
  ]);
  runs.forEach(({ from, to }, k) => {
    for (const edge of [from, to]) {
      const offset = Math.round(edge / alignment) * alignment;
      if (!marks.has(offset) && marks.size < most) marks.set(offset, k + 1);
    }
  });
  return [...marks].map(([offset, rank]) => ({ offset, rank }));
}
