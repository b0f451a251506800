import type { Problem } from '../result';

/** A file as it was given: its name, for what its ending says, and its bytes. */
export interface ImportFile {
  readonly name: string;
  readonly bytes: Uint8Array;
}

/** What a person has said of a file, by the id of the question. */
export type Answers = Readonly<Record<string, string>>;

/** Something that the file does not say and that is asked before anything of it is kept. */
export interface ImportQuestion {
  readonly id: string;
  /** Why it is asked, in a sentence: what was found. */
  readonly why: string;
  /** What can be answered; empty where a figure is to be typed. */
  readonly choices: readonly string[];
}

/** What was understood of a file, for showing before it is kept, and the value itself once nothing is open. */
export interface Understood<T, S = unknown> {
  readonly kind: 'understood';
  readonly summary: S;
  readonly questions: readonly ImportQuestion[];
  /** Guesses, gaps and oddities, a sentence each: shown beside what was read. */
  readonly notes: readonly string[];
  /** What files of the same instrument have in common: their layout and the names of their columns. */
  readonly signature?: string;
  /** The first rows as they were understood, column by column, where the file is a table. */
  readonly rows?: readonly (readonly string[])[];
  /** Absent while a question is open. */
  readonly value?: T;
}

export interface Refused {
  readonly kind: 'refused';
  readonly problems: readonly Problem[];
}

export type Outcome<T, S = unknown> = Understood<T, S> | Refused;

/** One kind of file that can be read. */
export interface Importer<T = unknown, S = unknown> {
  readonly id: string;
  /** What its files are called on screens. */
  readonly title: string;
  /** From 0, certainly none of its files, to 1, certainly one. Looks at the beginning of the file and at its name only. */
  readonly score: (file: ImportFile) => number;
  /** Largest file that it reads, bytes. */
  readonly mostBytes: number;
  readonly read: (file: ImportFile, answers: Answers) => Outcome<T, S>;
}

export const defineImporter = <T, S>(importer: Importer<T, S>): Importer<T, S> => importer;

export const refused = (message: string, at?: string): Refused => ({
  kind: 'refused',
  problems: [at === undefined ? { message } : { message, at }],
});

export const refusedFor = (problems: readonly Problem[]): Refused => ({ kind: 'refused', problems });

export const MIB = 2 ** 20;
