import { pickWeighted, updateBelief, type Fault, type Predictor } from '../../src/core/diagnose';
import type { Random } from '../../src/core/math';

/** Boards with one fault or two, drawn from the prior. */
export function boardsFrom(predictor: Predictor): (random: Random) => readonly Fault[] {
  const { space, faults, prior } = updateBelief(predictor, [], []);
  const members: [number, number][] = [];
  space.forEach((_, i, j) => members.push([i, j]));
  return (random) => {
    const [i, j] = members[pickWeighted(prior(), random)];
    return j < 0 ? [faults[i]] : [faults[i], faults[j]];
  };
}
