/** The middle of a list, or the mean of its two middle entries; NaN for an empty one. */
export function median(list: readonly number[]): number {
  const sorted = [...list].sort((a, b) => a - b);
  const half = sorted.length >> 1;
  return sorted.length % 2 === 1 ? sorted[half] : (sorted[half - 1] + sorted[half]) / 2;
}
