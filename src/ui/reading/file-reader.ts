export interface ReadFile {
  readonly name: string;
  readonly bytes: Uint8Array;
}

export interface ReadQuestion {
  readonly id: string;
  readonly why: string;
  readonly choices: readonly string[];
}

/** What a reader made of a file: a value, or questions that stand before it, or problems. */
export type ReadOutcome<T> =
  | {
      readonly kind: 'understood';
      readonly questions: readonly ReadQuestion[];
      readonly notes: readonly string[];
      readonly signature?: string;
      readonly rows?: readonly (readonly string[])[];
      readonly value?: T;
    }
  | { readonly kind: 'refused'; readonly problems: readonly { readonly message: string; readonly at?: string }[] };

/** Reads files of one kind. */
export interface FileReader<T> {
  /** Names the kind of file among presets; none are kept without it. */
  readonly id?: string;
  readonly title: string;
  readonly mostBytes: number;
  readonly read: (
    file: ReadFile,
    answers: Readonly<Record<string, string>>,
  ) => ReadOutcome<T> | Promise<ReadOutcome<T>>;
}

const MOST_PROBLEMS = 3;

export const problemLine = (outcome: Extract<ReadOutcome<never>, { kind: 'refused' }>): string =>
  outcome.problems
    .slice(0, MOST_PROBLEMS)
    .map((p) => (p.at ? `${p.at}: ${p.message}` : p.message))
    .join(' ');
