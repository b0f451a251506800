/** How a text file writes its characters. */
export type Encoding = 'utf-8' | 'utf-16le' | 'utf-16be' | 'windows-1252';

/** So many bytes tell an encoding that has no mark. */
const PEEK_BYTES = 4096;
/** Share of zero bytes at every other place that says UTF-16 of mostly Latin letters. Engineering estimate. */
const ZEROS = 0.4;

/**
 * The encoding of a text: by its byte order mark, by the zero bytes of UTF-16, else UTF-8 where it is valid and Windows-1252
 * where it is not. Source of the marks: Unicode Standard, section 23.8.
 */
export function encodingOf(bytes: Uint8Array): Encoding {
  if (bytes[0] === 0xff && bytes[1] === 0xfe) return 'utf-16le';
  if (bytes[0] === 0xfe && bytes[1] === 0xff) return 'utf-16be';
  const peek = Math.min(PEEK_BYTES, bytes.length) & ~1;
  let [even, odd] = [0, 0];
  for (let i = 0; i < peek; i += 2) {
    if (bytes[i] === 0) even++;
    if (bytes[i + 1] === 0) odd++;
  }
  const pairs = peek / 2;
  if (pairs > 0 && odd > ZEROS * pairs && even < odd / 8) return 'utf-16le';
  if (pairs > 0 && even > ZEROS * pairs && odd < even / 8) return 'utf-16be';
  try {
    new TextDecoder('utf-8', { fatal: true }).decode(bytes);
    return 'utf-8';
  } catch {
    return 'windows-1252';
  }
}

/** A text file's characters, without its byte order mark. */
export function textOf(bytes: Uint8Array): { readonly text: string; readonly encoding: Encoding } {
  const encoding = encodingOf(bytes);
  return { text: new TextDecoder(encoding).decode(bytes), encoding };
}

const TAB = 9;
const CARRIAGE_RETURN = 13;
const SPACE = 32;

/** Whether bytes are a text: no control character but tabs, line ends, form feeds and the end-of-file mark of old systems. */
export function isText(bytes: Uint8Array): boolean {
  const encoding = encodingOf(bytes.subarray(0, PEEK_BYTES));
  if (encoding.startsWith('utf-16')) return bytes.length > 1;
  const end = Math.min(bytes.length, 16 * PEEK_BYTES);
  // A blank chip reads as FF throughout, which is a letter in one encoding: a text has signs of ASCII too.
  let isWritten = false;
  for (let i = 0; i < end; i++) {
    const c = bytes[i];
    isWritten ||= c < 0x7f;
    if (c < SPACE && !(c >= TAB && c <= CARRIAGE_RETURN) && c !== 0x1a) return false;
    if (c === 0x7f) return false;
  }
  return isWritten;
}

/** The first characters of a file, as text, for looking at. */
export const headText = (bytes: Uint8Array, most = 64 * 1024): string => {
  const head = bytes.subarray(0, most);
  return new TextDecoder(encodingOf(head.length < bytes.length ? trimmed(head) : head)).decode(head);
};

/** Without the bytes of a character that the cut may have torn. */
function trimmed(head: Uint8Array): Uint8Array {
  let end = head.length;
  while (end > head.length - 4 && end > 0 && head[end - 1] >= 0x80) end--;
  return head.subarray(0, end);
}
