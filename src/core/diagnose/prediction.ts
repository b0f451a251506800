/** One way a reading may come out: means and spreads per dimension (ohms as log10). */
export interface Alternative {
  readonly means: readonly number[];
  readonly sds: readonly number[];
  readonly weight: number;
}

/** How the meter behaves over a minute or more, where single figures do not tell. */
export const SHAPES = ['steady', 'swing', 'restart', 'early'] as const;
export type Shape = (typeof SHAPES)[number];

export type Prediction =
  | { readonly kind: 'values'; readonly alternatives: readonly Alternative[] }
  | { readonly kind: 'verdict'; readonly failChance: number }
  /** One of several named answers. */
  | { readonly kind: 'choice'; readonly chance: Readonly<Record<string, number>> };
