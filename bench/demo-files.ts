import { readFileSync } from 'node:fs';
import path from 'node:path';
import { parseBoardText, type Board } from '../src/core/board';
import { problemText } from '../src/core/result';

/** A board of the demo world, straight from its file. */
export function demoBoard(id: string): Board {
  const parsed = parseBoardText(readFileSync(path.resolve('demo/boards', `${id}.json`), 'utf8'));
  if (!parsed.ok) throw new Error(problemText(parsed.problems));
  return parsed.value;
}
