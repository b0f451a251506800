/** One way a reading may come out: means and spreads per dimension (ohms as log10). */
export interface Alternative {
  readonly means: readonly number[];
  readonly sds: readonly number[];
  readonly weight: number;
}

export type Prediction =
  | { readonly kind: 'values'; readonly alternatives: readonly Alternative[] }
  | { readonly kind: 'verdict'; readonly failChance: number };
