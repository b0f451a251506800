/** Figures as they are typed, by name; an empty one keeps the default. */
export type Draft = Readonly<Record<string, string>>;

/** The draft of kept figures, each shown as the user would type it. */
export const draftOf = (kept: Readonly<Record<string, number | undefined>> | undefined, scale = 1): Draft =>
  Object.fromEntries(
    Object.entries(kept ?? {}).flatMap(([name, value]) =>
      value === undefined ? [] : [[name, String(Number((value * scale).toFixed(2)))]],
    ),
  );

/** The figures of a draft; what is no figure becomes NaN, for the schema to refuse. */
export const figuresOf = (draft: Draft, scale = 1): Record<string, number> =>
  Object.fromEntries(
    Object.entries(draft).flatMap(([name, text]) =>
      text.trim() === '' ? [] : [[name, Number(text.trim().replace(',', '.')) / scale]],
    ),
  );
