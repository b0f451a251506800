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

/** Faults as one: the union of what they do. */
export const together = (faults: readonly Fault[]): Fault => ({
  id: faults.map((f) => f.id).join('+') || 'sound',
  ref: '',
  words: '',
  weight: 0,
  effects: faults.flatMap((f) => f.effects),
  mendedBy: { kind: 'nothing' },
});
