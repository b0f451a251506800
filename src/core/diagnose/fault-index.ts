/** Singles and pairs of faults, side by side; `second` is the number of faults where there is none. */
interface Listed {
  readonly first: Uint16Array;
  readonly second: Uint16Array;
  readonly p: Float64Array;
  /** How many there are. */
  readonly pairsEnd: number;
}

/** The likely singles and pairs of each fault: those of fault f stand from `from[f]` to `from[f + 1]`. */
export interface FaultIndex {
  readonly from: Uint32Array;
  /** The other fault; the number of faults where there is none, the fault itself where there are two of its class. */
  readonly other: Uint16Array;
  readonly p: Float64Array;
  /** Of all singles and pairs together. */
  readonly total: number;
}

/** @param faults how many there are. */
export function indexFaults({ first, second, p, pairsEnd }: Listed, faults: number): FaultIndex {
  const from = new Uint32Array(faults + 2);
  const isSecond = (k: number): boolean => second[k] < faults && second[k] !== first[k];
  for (let k = 0; k < pairsEnd; k++) {
    from[first[k] + 1]++;
    if (isSecond(k)) from[second[k] + 1]++;
  }
  for (let f = 0; f < faults; f++) from[f + 1] += from[f];
  const next = from.slice();
  const other = new Uint16Array(from[faults]);
  const chance = new Float64Array(from[faults]);
  let total = 0;
  const put = (f: number, partner: number, k: number): void => {
    const at = next[f]++;
    other[at] = partner;
    chance[at] = p[k];
  };
  for (let k = 0; k < pairsEnd; k++) {
    total += p[k];
    put(first[k], second[k], k);
    if (isSecond(k)) put(second[k], first[k], k);
  }
  return { from, other, p: chance, total };
}
