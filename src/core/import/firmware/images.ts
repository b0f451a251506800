import { formatOf, loadImage, type LoadedImage } from '../../records';
import {
  defineImporter,
  MIB,
  refusedFor,
  type Answers,
  type ImportFile,
  type ImportQuestion,
  type Outcome,
} from '../importer';
import { isText, textOf } from '../text/encoding';
import { firmwareNotes, firmwareSummary, type FirmwareSummary } from './summary';
import { textFormOf } from './text-forms';

const MOST_RAW = 64 * MIB;
const MOST_TEXT = 256 * MIB;
const PEEK_BYTES = 64 * 1024;

/** Records in UTF-16 are plain text again. */
const plain = (file: ImportFile): Uint8Array => {
  const head = file.bytes.subarray(0, PEEK_BYTES);
  if (!isText(head)) return file.bytes;
  const { text, encoding } = textOf(head);
  return encoding.startsWith('utf-16') || text.length === 0
    ? new TextEncoder().encode(textOf(file.bytes).text)
    : file.bytes;
};

function understood(
  format: string,
  image: LoadedImage,
  questions: readonly ImportQuestion[],
  extra: readonly string[] = [],
): Outcome<LoadedImage, FirmwareSummary> {
  return {
    kind: 'understood',
    summary: firmwareSummary(format, image),
    questions,
    notes: firmwareNotes(image.chunks, [...image.notes, ...extra]),
    value: questions.length === 0 ? image : undefined,
  };
}

const records = (id: string, title: string, format: 'intel-hex' | 's-record') =>
  defineImporter<LoadedImage, FirmwareSummary>({
    id,
    title,
    mostBytes: MOST_TEXT,
    score: (file) =>
      formatOf(plain({ name: file.name, bytes: file.bytes.subarray(0, PEEK_BYTES) })) === format ? 0.98 : 0,
    read: (file) => {
      const loaded = loadImage(plain(file));
      if (!loaded.ok) return refusedFor(loaded.problems);
      if (loaded.value.format !== format)
        return refusedFor([{ message: `Expected ${title}; got a file whose first line is no such record.` }]);
      return understood(format, loaded.value, []);
    },
  });

export const firmwareHex = records('firmware-hex', 'an image in Intel HEX', 'intel-hex');
export const firmwareSRecords = records('firmware-s-records', 'an image in S-records', 's-record');

/** Beginnings of files that hold something else around an image. Sources: the formats' own documents, from memory. */
const CONTAINERS: readonly (readonly [string, readonly number[]])[] = [
  ['a zip archive', [0x50, 0x4b, 0x03, 0x04]],
  ['a gzip file', [0x1f, 0x8b, 0x08]],
  ['an xz file', [0xfd, 0x37, 0x7a, 0x58, 0x5a]],
  ['a 7z archive', [0x37, 0x7a, 0xbc, 0xaf, 0x27, 0x1c]],
  ['an ELF program', [0x7f, 0x45, 0x4c, 0x46]],
  ['a UF2 file', [0x55, 0x46, 0x32, 0x0a]],
  ['a DFU file', [0x44, 0x66, 0x75, 0x53, 0x65]],
  ['a PDF', [0x25, 0x50, 0x44, 0x46]],
  ['a PNG picture', [0x89, 0x50, 0x4e, 0x47]],
  ['a JPEG picture', [0xff, 0xd8, 0xff]],
  ['a database file', [0x53, 0x51, 0x4c, 0x69, 0x74, 0x65]],
];

const containerOf = (bytes: Uint8Array): string | undefined =>
  CONTAINERS.find(([, magic]) => magic.every((b, i) => bytes[i] === b))?.[0];

function readRaw(file: ImportFile, answers: Answers): Outcome<LoadedImage, FirmwareSummary> {
  const image: LoadedImage = {
    format: 'raw',
    chunks: [{ address: 0, bytes: file.bytes }],
    lines: [],
    remarks: [],
    notes: [],
    newline: '\n',
    endsWithNewline: true,
  };
  const container = containerOf(file.bytes);
  const looksLike = isText(file.bytes) ? (textFormOf(file.bytes)?.title ?? 'text') : container;
  const question: ImportQuestion = {
    id: 'raw',
    why: `The file looks like ${looksLike}: are these very bytes what the chip holds?`,
    choices: ['yes', 'no'],
  };
  if (looksLike !== undefined && answers.raw === 'no')
    return refusedFor([{ message: `Expected the bytes of a chip; got ${looksLike}.` }]);
  return understood('raw', image, looksLike === undefined || answers.raw === 'yes' ? [] : [question]);
}

export const firmwareRaw = defineImporter<LoadedImage, FirmwareSummary>({
  id: 'firmware-raw',
  title: 'an image as raw bytes',
  mostBytes: MOST_RAW,
  score: ({ name, bytes }) => {
    const named = /\.(?:bin|rom|img|fw|dump|raw)$/i.test(name);
    if (isText(bytes)) return named ? 0.3 : 0.2;
    if (containerOf(bytes)) return named ? 0.5 : 0.25;
    return named ? 0.9 : 0.7;
  },
  read: readRaw,
});
