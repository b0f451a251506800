import { fail, ok, type Result } from '../result';

/** `a, b or c`. */
export function orList(words: readonly string[]): string {
  if (words.length < 2) return words.join('');
  return `${words.slice(0, -1).join(', ')} or ${words[words.length - 1]}`;
}

/** The sentence for a word that is none of those that can stand there. */
export const expected = (choices: readonly string[], got: string | undefined, where = ''): string =>
  `Expected ${orList(choices)}${where && ` ${where}`}; got "${got ?? ''}".`;

/** The choice that was typed, or the sentence that names them all. */
export function oneOf<T extends string>(choices: readonly T[], word: string | undefined, where = ''): Result<T> {
  const found = choices.find((c) => c.toLowerCase() === word?.toLowerCase());
  return found === undefined ? fail(expected(choices, word, where)) : ok(found);
}
