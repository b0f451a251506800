/** One way a reading may come out: means and spreads per dimension (ohms as log10). */
export interface Alternative {
  readonly means: readonly number[];
  readonly sds: readonly number[];
  readonly weight: number;
}

/** What a test reads under a fault. */
export type Prediction =
  | { readonly kind: 'values'; readonly alternatives: readonly Alternative[] }
  | { readonly kind: 'verdict'; readonly failChance: number }
  /** One of several named answers, with the chance of each; all rows of a test name the same answers. */
  | { readonly kind: 'choice'; readonly chance: Readonly<Record<string, number>> };

/** A figure with its spread. */
export const alternative = (mean: number, sd: number, weight = 1): Alternative => ({
  means: [mean],
  sds: [sd],
  weight,
});

export const valuesOf = (...alternatives: Alternative[]): Prediction => ({ kind: 'values', alternatives });

export const verdict = (failChance: number): Prediction => ({ kind: 'verdict', failChance });

/** Predictions with their shares, as one. */
export const mixture = (parts: readonly (readonly [share: number, prediction: Prediction])[]): Prediction =>
  valuesOf(
    ...parts.flatMap(([share, p]) =>
      p.kind === 'values' ? p.alternatives.map((alt) => ({ ...alt, weight: alt.weight * share })) : [],
    ),
  );

/** Chances of named answers; what is left of one is shared out evenly, so that no answer is impossible. */
export function choiceChances<T extends string>(
  answers: readonly T[],
  known: Readonly<Partial<Record<T, number>>>,
): Readonly<Record<T, number>> {
  const sum = answers.reduce((s, answer) => s + (known[answer] ?? 0), 0);
  const rest = (1 - sum) / answers.length;
  return Object.fromEntries(answers.map((answer) => [answer, (known[answer] ?? 0) + rest])) as Record<T, number>;
}
