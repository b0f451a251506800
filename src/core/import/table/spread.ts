/** The middle of the steps between different values; 0 where there are none. */
export function typicalStep(values: Float64Array): number {
  const steps: number[] = [];
  let last = NaN;
  for (const v of values) {
    if (Number.isNaN(v)) continue;
    if (!Number.isNaN(last) && v !== last) steps.push(v - last);
    last = v;
    if (steps.length > 2000) break;
  }
  steps.sort((a, b) => a - b);
  return steps[Math.floor(steps.length / 2)] ?? 0;
}

/**
 * Rows with one time are spread over the time to the next one. The first such group may have begun before the file did and the
 * last may go on after it: both are taken to have the spacing of the others.
 * @returns whether any were.
 */
export function spreadEvenly(seconds: Float64Array, resolution: number): boolean {
  const groups: { from: number; to: number }[] = [];
  for (let i = 0; i < seconds.length; i++) {
    if (Number.isNaN(seconds[i])) continue;
    const group = groups[groups.length - 1];
    if (group && seconds[i] === seconds[group.from]) group.to = i + 1;
    else groups.push({ from: i, to: i + 1 });
  }
  if (groups.every((g) => g.to - g.from === 1)) return false;
  const inner = groups
    .slice(1, -1)
    .map((g) => g.to - g.from)
    .sort((a, b) => a - b);
  const usual = inner[Math.floor(inner.length / 2)] ?? Math.max(...groups.map((g) => g.to - g.from));
  const starts = groups.map((g) => seconds[g.from]);
  const unit = groups.length > 1 ? typicalStep(Float64Array.from(starts)) : resolution;
  groups.forEach(({ from, to }, k) => {
    const count = to - from;
    const edge = k === 0 || k === groups.length - 1;
    const slots = edge ? Math.max(count, usual) : count;
    const length = k + 1 < groups.length ? Math.min(unit, starts[k + 1] - starts[k]) : unit;
    // The first group ends with its second, all others begin with theirs.
    const lead = k === 0 && groups.length > 1 ? slots - count : 0;
    for (let i = from; i < to; i++) seconds[i] = starts[k] + ((i - from + lead) * length) / slots;
  });
  const shift = seconds.find((s) => !Number.isNaN(s)) ?? 0;
  for (let i = 0; i < seconds.length; i++) seconds[i] -= shift;
  return true;
}
