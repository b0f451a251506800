/**
 * Step lengths after each change of settings, s, and for how long each. Against steps of 20 ms throughout: within 0.35 K at any
 * joint and body of a demo plan, whose outlet lags by seconds, and as much on the test bodies, whose films are switched at once.
 */
const STEPS_S = [
  { lengthS: 0.05, forS: 1 },
  { lengthS: 0.1, forS: 1 },
  { lengthS: 0.25, forS: Infinity },
];

/** Step lengths that fill whole seconds, s. */
export function stepLengths(durationS: number): number[] {
  let left = durationS;
  return STEPS_S.flatMap(({ lengthS, forS }) => {
    const filled = Math.min(forS, left);
    left -= filled;
    return new Array<number>(Math.round(filled / lengthS)).fill(lengthS);
  });
}
