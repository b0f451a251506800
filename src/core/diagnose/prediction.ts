/** One way a reading may come out: means and spreads per dimension (ohms as log10). */
export interface Alternative {
  readonly means: readonly number[];
  readonly sds: readonly number[];
  readonly weight: number;
}

/** A share of readings that may lie anywhere. */
export interface Broad {
  readonly share: number;
  /** The prediction without it. */
  readonly plain: Prediction;
  /** What a sound board reads, where the range depends on it. */
  readonly sound?: number;
  /** True where "anywhere" is one of the test's patterns, which stand among the alternatives. */
  readonly patterned?: boolean;
}

/** Share of a prediction's values that may lie anywhere at all. */
export const anywhereShare = (p: Prediction): number =>
  p.kind === 'values' && !p.broad?.patterned ? (p.broad?.share ?? 0) : 0;

/** What a test reads under a fault. */
export type Prediction =
  | { readonly kind: 'values'; readonly alternatives: readonly Alternative[]; readonly broad?: Broad }
  | { readonly kind: 'verdict'; readonly failChance: number; readonly broad?: Broad }
  /** One of several named answers, with the chance of each; all rows of a test name the same answers. */
  | {
      readonly kind: 'choice';
      readonly chance: Readonly<Record<string, number>>;
      /** How many answers could be given by mistake, where that is more than are told apart. */
      readonly answers?: number;
      readonly broad?: Broad;
    };

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

/** Half of the readings at an unlisted fault are as without it. Engineering estimate. */
const BROAD_SHARE = 0.5;

/** What "anywhere" means for a test: the patterns that its readings fall into, or a range round what a sound board reads. */
export interface Anywhere {
  readonly patterns?: readonly Alternative[];
  readonly sound?: number;
}

/**
 * A prediction where something unlisted may be at work: half of it broad, or all of it where nothing at all is known.
 * @param wholly true where nothing of the prediction is left.
 */
export function broadened(plain: Prediction, wholly: boolean, anywhere: Anywhere): Prediction {
  const share = wholly ? 1 : BROAD_SHARE;
  switch (plain.kind) {
    case 'verdict':
      return { kind: 'verdict', failChance: (1 - share) * plain.failChance + share / 2, broad: { share, plain } };
    case 'choice': {
      const even = share / Object.keys(plain.chance).length;
      const chance = Object.entries(plain.chance).map(([name, p]) => [name, (1 - share) * p + even]);
      return { ...plain, chance: Object.fromEntries(chance) as Record<string, number>, broad: { share, plain } };
    }
    case 'values': {
      const { patterns, sound } = anywhere;
      const kept = plain.alternatives.map((alt) => ({ ...alt, weight: (1 - share) * alt.weight }));
      const even = (patterns ?? []).map((alt) => ({ ...alt, weight: share / patterns!.length }));
      // Patterns are told one by one; a figure may lie anywhere.
      const broad = { share, plain, sound, patterned: patterns !== undefined };
      return { kind: 'values', alternatives: [...kept, ...even], broad };
    }
  }
}

/** A prediction where a share of the readings meets a fault and the rest does not. */
export function seenAtTimes(share: number, met: Prediction, missed: Prediction): Prediction {
  if (JSON.stringify(met) === JSON.stringify(missed)) return met;
  if (met.kind === 'verdict' && missed.kind === 'verdict')
    return verdict(share * met.failChance + (1 - share) * missed.failChance);
  if (met.kind === 'choice' && missed.kind === 'choice') {
    const chance = Object.entries(met.chance).map(([name, p]) => [name, share * p + (1 - share) * missed.chance[name]]);
    return { ...met, chance: Object.fromEntries(chance) as Record<string, number>, broad: undefined };
  }
  return mixture([
    [share, met],
    [1 - share, missed],
  ]);
}
