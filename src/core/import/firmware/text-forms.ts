import { hexBytes, joinChunks, type Chunk, type LoadedImage } from '../../records';
import { defineImporter, MIB, refused, refusedFor, type ImportFile, type Outcome } from '../importer';
import { headText, isText, textOf } from '../text/encoding';
import { firmwareNotes, firmwareSummary, type FirmwareSummary } from './summary';

/** A way to write bytes as text that is neither Intel HEX nor S-records. */
interface TextForm {
  readonly id: string;
  readonly title: string;
  readonly matches: (head: string) => boolean;
  /** Undefined where it is recognised and refused. */
  readonly read?: (text: string) => Outcome<LoadedImage, FirmwareSummary>;
}

const MOST_SPAN = 64 * MIB;
const withoutComments = (text: string): string => text.replace(/\/\*[\s\S]*?\*\//g, ' ').replace(/\/\/[^\n]*/g, '');
const firstLines = (head: string): string[] =>
  head
    .split(/\r\n|\n|\r/)
    .map((line) => line.trim())
    .filter((line) => line !== '');

/**
 * Bytes in hexadecimal behind an address that begins with an at sign, comments between them. Sources: `$readmemh` of IEEE 1364-2005,
 * section 17.2.9; the text form with a closing q of linkers for small controllers, from memory. Words wider than a byte are
 * refused: the file does not say which of their bytes comes first.
 */
function readAddressed(text: string): Outcome<LoadedImage, FirmwareSummary> {
  const pieces: Chunk[] = [];
  let address = 0;
  let run: string[] = [];
  const problem = (message: string) => refused(message);
  const flush = (): string | undefined => {
    if (run.length === 0) return undefined;
    const bytes = hexBytes(run.join(''), 0);
    if (!bytes.ok) return bytes.problems[0].message;
    pieces.push({ address, bytes: bytes.value });
    address += run.length;
    run = [];
    return undefined;
  };
  for (const token of withoutComments(text).split(/\s+/)) {
    if (token === '' || token === 'q' || token === 'Q') continue;
    if (token[0] === '@') {
      const wrong = flush();
      if (wrong) return problem(wrong);
      if (!/^@[0-9a-fA-F]{1,8}$/.test(token))
        return problem(`Expected an address of hexadecimal digits after @; got "${token.slice(0, 20)}".`);
      address = parseInt(token.slice(1), 16);
    } else if (/^[0-9a-fA-F]{2}$/.test(token)) run.push(token);
    else if (/^[0-9a-fA-F]{4}$|^[0-9a-fA-F]{8}$|^[0-9a-fA-F]{16}$/.test(token))
      return problem(
        `Expected bytes of two digits; got words such as ${token}: the file does not say which byte of a word comes first.`,
      );
    else return problem(`Expected bytes of two hexadecimal digits; got "${token.slice(0, 20)}".`);
  }
  const wrong = flush();
  if (wrong) return problem(wrong);
  const { chunks, twiceAt } = joinChunks(pieces);
  if (twiceAt !== undefined)
    return problem(`Expected each byte once; address ${twiceAt.toString(16).toUpperCase()} is given twice.`);
  if (chunks.length === 0) return problem('Expected bytes; got none.');
  const last = chunks[chunks.length - 1];
  if (last.address + last.bytes.length - chunks[0].address > MOST_SPAN)
    return problem(`Expected at most ${MOST_SPAN / MIB} MiB; got more.`);
  const image: LoadedImage = {
    format: 'raw',
    chunks,
    lines: [],
    remarks: [],
    notes: [],
    newline: '\n',
    endsWithNewline: true,
  };
  return {
    kind: 'understood',
    summary: firmwareSummary('addressed hexadecimal text', image),
    questions: [],
    notes: firmwareNotes(chunks, ['Read from bytes in hexadecimal behind addresses.']),
    value: image,
  };
}

const FORMS: readonly TextForm[] = [
  {
    id: 'addressed',
    title: 'bytes in hexadecimal behind addresses with @',
    matches: (head) => /^@[0-9a-fA-F]{1,8}(?:\s|$)/.test(withoutComments(head).trimStart()),
    read: readAddressed,
  },
  {
    id: 'extended-hex',
    title: 'extended hexadecimal records that begin with %',
    matches: (head) =>
      firstLines(head)
        .slice(0, 5)
        .every((line) => /^%[0-9A-F]{6,}/i.test(line)),
  },
  {
    id: 'semicolon-records',
    title: 'hexadecimal records that begin with a semicolon',
    matches: (head) =>
      firstLines(head)
        .slice(0, 5)
        .every((line) => /^;[0-9A-F]{8,}$/i.test(line)),
  },
  {
    id: 'dump',
    title: 'a listing of a dump with addresses and characters',
    matches: (head) => {
      const lines = firstLines(head).slice(0, 5);
      return (
        lines.length > 0 &&
        lines.every((line) => /^(?:0x)?[0-9a-f]{4,16}:?\s+(?:[0-9a-f]{2,8}\s+){3,}/i.test(`${line} `))
      );
    },
  },
  {
    id: 'array',
    title: 'an array in a program’s source',
    matches: (head) => (head.match(/0x[0-9a-f]{2}\s*,/gi)?.length ?? 0) > 8,
  },
  {
    id: 'digits',
    title: 'plain hexadecimal digits without addresses or checks',
    matches: (head) => {
      const lines = firstLines(head).slice(0, 20);
      return lines.length > 0 && lines.every((line) => /^(?:[0-9a-f]{2}\s*){8,}$/i.test(line));
    },
  },
  {
    id: 'base64',
    title: 'base64 text',
    matches: (head) => {
      const lines = firstLines(head);
      const body = /^-----BEGIN/.test(lines[0] ?? '') ? lines.slice(1, 6) : lines.slice(0, 5);
      // Records without a header are written with the same signs.
      const isRecords = body.every((line) => /^S\d[0-9A-F]+$/i.test(line));
      return body.length > 0 && !isRecords && body.every((line) => /^[A-Za-z0-9+/]{40,}={0,2}$/.test(line));
    },
  },
  { id: 'markup', title: 'XML or HTML', matches: (head) => /^\s*<(?:\?xml|!doctype|html|[a-z]+[\s>])/i.test(head) },
];

/** The text form of a file; undefined where it is none of those that are known. */
export const textFormOf = (bytes: Uint8Array): TextForm | undefined => {
  const head = headText(bytes, 16 * 1024).replace(/^\uFEFF/, '');
  return FORMS.find((form) => form.matches(head));
};

function readForm(file: ImportFile): Outcome<LoadedImage, FirmwareSummary> {
  const form = isText(file.bytes) ? textFormOf(file.bytes) : undefined;
  if (!form) return refused('Expected an image as text; got none of the forms that are known.');
  if (!form.read)
    return refusedFor([
      {
        message: `This is ${form.title}: expected Intel HEX, S-records or raw bytes. Convert it with the tool that wrote it.`,
      },
    ]);
  return form.read(textOf(file.bytes).text);
}

export const firmwareText = defineImporter<LoadedImage, FirmwareSummary>({
  id: 'firmware-text',
  title: 'an image in another text form',
  mostBytes: 256 * MIB,
  score: (file) => {
    if (!isText(file.bytes)) return 0;
    const form = textFormOf(file.bytes);
    if (!form) return 0;
    return form.id === 'markup' ? 0.25 : 1;
  },
  read: readForm,
});
