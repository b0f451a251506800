/** Singles and pairs of faults, side by side; `second` is the number of faults where there is none. */
interface Listed {
  readonly first: Uint16Array;
  readonly second: Uint16Array;
  /** How many there are. */
  readonly pairsEnd: number;
}

/** The likely singles and pairs of each fault: those of fault f stand from `from[f]` to `from[f + 1]`. */
export interface FaultIndex {
  readonly from: Uint32Array;
  readonly hypotheses: Uint32Array;
}

/** @param faults how many there are. */
export function indexFaults({ first, second, pairsEnd }: Listed, faults: number): FaultIndex {
  const from = new Uint32Array(faults + 2);
  const isSecond = (k: number): boolean => second[k] < faults && second[k] !== first[k];
  for (let k = 0; k < pairsEnd; k++) {
    from[first[k] + 1]++;
    if (isSecond(k)) from[second[k] + 1]++;
  }
  for (let f = 0; f < faults; f++) from[f + 1] += from[f];
  const next = from.slice();
  const hypotheses = new Uint32Array(from[faults]);
  for (let k = 0; k < pairsEnd; k++) {
    hypotheses[next[first[k]]++] = k;
    if (isSecond(k)) hypotheses[next[second[k]]++] = k;
  }
  return { from, hypotheses };
}
