import type { Result } from '../result';

/** A line as it was typed, taken apart once for every command that may read it. */
export interface CommandLine {
  /** As typed, without the space around it. */
  readonly text: string;
  /** The first word, in small letters; empty for an empty line. */
  readonly head: string;
  /** The words after the head, in small letters. */
  readonly args: readonly string[];
  /** All words in small letters, the head included. */
  readonly words: readonly string[];
  /** What stands after the head, as typed. */
  readonly rest: string;
}

/** One form of a command: what is typed, and what it means. */
export interface CommandForm {
  readonly example: string;
  readonly help: string;
}

/**
 * One command of a grammar: how its line is recognised, read, completed and explained. Help texts, completion lists, the
 * sentence for an unknown word and the page in `docs` are all made from these members.
 * @typeParam Context what the command reads of its world: a board, a plan, the stock.
 * @typeParam Command what a line means: plain data, the same that a pointer or an instrument makes.
 */
export interface CommandDefinition<Context, Command> {
  /** The word that begins the line; for lines that begin with a name of the world a word for it, such as `point`. */
  readonly name: string;
  /** Other words that begin the same command. */
  readonly aliases?: readonly string[];
  /** Set where the line does not begin with {@link name}: true for lines that are this command's. */
  readonly matches?: (context: Context, line: CommandLine) => boolean;
  /** Its forms, the commonest first. */
  readonly usage: readonly CommandForm[];
  /** Reads a line that is this command's. */
  readonly parse: (context: Context, line: CommandLine) => Result<Command>;
  /** Words that can stand at the last of `words`, the head included. */
  readonly complete: (context: Context, words: readonly string[]) => readonly string[];
}

/** States a command; a member that is missing is a compile error. */
export const defineCommand = <Context, Command>(
  definition: CommandDefinition<Context, Command>,
): CommandDefinition<Context, Command> => definition;

/** Takes a typed text apart. */
export function readLine(text: string): CommandLine {
  const trimmed = text.trim();
  const words = trimmed.toLowerCase().split(/\s+/).filter(Boolean);
  const [head = '', ...args] = words;
  return { text: trimmed, head, args, words, rest: trimmed.slice(head.length).trim() };
}
