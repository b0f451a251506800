import type { LoadedImage } from './memory';

export interface TextLine {
  readonly number: number;
  readonly text: string;
}

/** A text's lines with what ends them. Empty lines at the end are left out. */
export function linesOf(text: string): { lines: TextLine[] } & Pick<LoadedImage, 'newline' | 'endsWithNewline'> {
  const newline = text.includes('\r\n') ? '\r\n' : text.includes('\n') ? '\n' : text.includes('\r') ? '\r' : '\n';
  // Old systems end a text with a mark of their own.
  const split = text.replace(/[\u001a\0]+\s*$/, '').split(newline);
  const endsWithNewline = split[split.length - 1] === '';
  const lines = split.map((line, k) => ({ number: k + 1, text: line.trim() }));
  while (lines.length > 0 && lines[lines.length - 1].text === '') lines.pop();
  return { lines, newline, endsWithNewline };
}

/** A comment as programmers' tools write them, or an empty line: no record begins so. Common practice, no source. */
export const isRemark = (text: string): boolean =>
  text[0] !== ':' && text[0] !== 'S' && (text === '' || /^(?:[;#!*]|\/\/|\/\*|--)/.test(text));

/** Small letters in a line that has any. */
export function isLower(text: string): boolean {
  let small = false;
  for (let k = 0; k < text.length; k++) {
    const code = text.charCodeAt(k);
    if (code >= 65 && code <= 70) return false;
    if (code >= 97 && code <= 102) small = true;
  }
  return small;
}
