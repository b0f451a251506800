import { fail, type Result } from '../result';
import { readLine, type CommandDefinition, type CommandForm, type CommandLine } from './command';
import { expected } from './expected';

/** A grammar: its commands, and what is offered and said where none of them is meant. */
export interface Grammar<Context, Command> {
  readonly commands: readonly CommandDefinition<Context, Command>[];
  /** The command whose forms lead the help, where that is not the first: lines are matched in order, helped by use. */
  readonly helpFirst?: string;
  /** What an empty line should have held, such as `a point and a value, such as: tp7 1.8 ohm`. */
  readonly emptyLine: string;
  /** Examples of names of the world that can begin a line, for the sentence about a word that is none. */
  readonly nameExamples?: readonly string[];
  /** Names of the world that can begin a line beside the commands' own words. */
  readonly names?: (context: Context) => readonly string[];
}

/** So many completions are shown at once. */
const MOST_COMPLETIONS = 6;

const beginsWith = <C, K>(command: CommandDefinition<C, K>, head: string): boolean =>
  command.name === head || (command.aliases?.includes(head) ?? false);

/** The command that a line is for: by what it matches, else by its first word. Earlier commands go first. */
function commandFor<Context, Command>(
  { commands }: Grammar<Context, Command>,
  context: Context,
  line: CommandLine,
): CommandDefinition<Context, Command> | undefined {
  return commands.find((c) => (c.matches ? c.matches(context, line) : beginsWith(c, line.head)));
}

/** Reads one line: the command that it is for reads it, else a sentence names the words that begin one. */
export function parseLine<Context, Command>(
  grammar: Grammar<Context, Command>,
  context: Context,
  text: string,
): Result<Command> {
  const line = readLine(text);
  if (line.head === '') return fail(`Expected ${grammar.emptyLine}.`);
  const command = commandFor(grammar, context, line);
  if (command) return command.parse(context, line);
  return fail(expected([...headWords(grammar), ...(grammar.nameExamples ?? [])], line.head));
}

/** The words that begin a command, in the order of the grammar; those that begin with a name of the world left out. */
export const headWords = <Context, Command>({ commands }: Grammar<Context, Command>): string[] =>
  commands.filter((c) => !c.matches).flatMap((c) => [c.name, ...(c.aliases ?? [])]);

/** Words that can complete the last word of a text, shortest first. */
export function completeLine<Context, Command>(
  grammar: Grammar<Context, Command>,
  context: Context,
  text: string,
): string[] {
  const words = text.toLowerCase().trimStart().split(/\s+/);
  const typed = words[words.length - 1] ?? '';
  return candidates(grammar, context, words)
    .filter((c) => c.startsWith(typed) && c !== typed)
    .sort((a, b) => a.length - b.length || a.localeCompare(b))
    .slice(0, MOST_COMPLETIONS);
}

function candidates<Context, Command>(
  grammar: Grammar<Context, Command>,
  context: Context,
  words: readonly string[],
): readonly string[] {
  if (words.length <= 1) return words[0] ? [...headWords(grammar), ...(grammar.names?.(context) ?? [])] : [];
  const line = readLine(words.join(' '));
  return commandFor(grammar, context, line)?.complete(context, words) ?? [];
}

/** The text with its last word replaced by a completion. */
export const applyCompletion = (text: string, completion: string): string =>
  `${text.replace(/\S*$/, '')}${completion} `;

/** All forms of a grammar, the commonest command first: the list on the screen and the page in `docs`. */
export const grammarForms = <Context, Command>({ commands, helpFirst }: Grammar<Context, Command>): CommandForm[] =>
  [...commands].sort((a, b) => Number(b.name === helpFirst) - Number(a.name === helpFirst)).flatMap((c) => c.usage);
