import type { LoadedImage } from './memory';

export interface TextLine {
  readonly number: number;
  readonly text: string;
}

/** A text's lines with what ends them. Empty lines at the end are left out. */
export function linesOf(text: string): { lines: TextLine[] } & Pick<LoadedImage, 'newline' | 'endsWithNewline'> {
  const newline = text.includes('\r\n') ? '\r\n' : text.includes('\n') ? '\n' : text.includes('\r') ? '\r' : '\n';
  const split = text.split(newline);
  const endsWithNewline = split[split.length - 1] === '';
  const lines = split.map((line, k) => ({ number: k + 1, text: line.trim() }));
  while (lines.length > 0 && lines[lines.length - 1].text === '') lines.pop();
  return { lines, newline, endsWithNewline };
}

/** Small letters in a line that has any. */
export const isLower = (text: string): boolean => /[a-f]/.test(text) && !/[A-F]/.test(text);
