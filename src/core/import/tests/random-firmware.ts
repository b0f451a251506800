import type { Random } from '../../math';
import { importFile } from '..';
import { saveImage, flatten, type Chunk, type LoadedImage } from '../../records';

/** A firmware file in a random style, and the bytes it was written from. */
export interface WrittenFirmware {
  readonly name: string;
  readonly bytes: Uint8Array;
  readonly chunks: readonly Chunk[];
  readonly style: string;
  /** A text that holds no image in a form that is read: to be refused or asked. */
  readonly foreign: boolean;
}

const pick = <T>(random: Random, list: readonly T[]): T => list[Math.floor(random() * list.length)];
const someBytes = (random: Random, length: number): Uint8Array =>
  Uint8Array.from({ length }, () => Math.floor(random() * 256));

function someChunks(random: Random): Chunk[] {
  let address = pick(random, [0, 0, 0x100, 0x8000, 0x0800_0000]);
  return Array.from({ length: 1 + Math.floor(random() * 3) }, () => {
    const chunk = { address, bytes: someBytes(random, 1 + Math.floor(random() * 600)) };
    address += chunk.bytes.length + 1 + Math.floor(random() * 5000);
    return chunk;
  });
}

const hex = (v: number, digits: number): string => v.toString(16).toUpperCase().padStart(digits, '0');

const BASE64 = 'ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789+/';

/** Whole groups of three bytes as four letters. Source: RFC 4648, section 4. */
function base64Of(bytes: Uint8Array): string {
  let text = '';
  for (let i = 0; i + 3 <= bytes.length; i += 3) {
    const group = (bytes[i] << 16) | (bytes[i + 1] << 8) | bytes[i + 2];
    for (const shift of [18, 12, 6, 0]) text += BASE64[(group >> shift) & 63];
  }
  return text;
}

/** Other ways to write bytes as text, none of them to be taken for the bytes of the chip. */
const FOREIGN: readonly ((bytes: Uint8Array) => string)[] = [
  (b) =>
    Array.from(b, (v, i) => (i % 16 === 0 ? `\n${hex(i, 8)}: ` : '') + hex(v, 2) + ' ')
      .join('')
      .trim(),
  (b) => `const unsigned char image[] = {\n${Array.from(b, (v) => `0x${hex(v, 2)}`).join(', ')}\n};\n`,
  (b) => base64Of(b).replace(/(.{76})/g, '$1\n'),
  (b) => `<?xml version="1.0"?><image>${Array.from(b, (v) => hex(v, 2)).join('')}</image>`,
  (b) =>
    Array.from(b, (v) => hex(v, 2))
      .join('')
      .replace(/(.{64})/g, '$1\n'),
  (b) => JSON.stringify([...b]),
  () => 'Dear customer,\nthe image is attached.\n',
];

export function randomFirmware(random: Random): WrittenFirmware {
  const chunks = someChunks(random);
  const kind = pick(random, ['hex', 'hex', 's-record', 's-record', 'raw', 'addressed', 'foreign'] as const);
  const flat = flatten(chunks).bytes;
  if (kind === 'raw') {
    const bytes = Uint8Array.from([0, ...someBytes(random, 1 + Math.floor(random() * 4000))]);
    return {
      name: pick(random, ['dump.bin', 'dump', 'read.rom']),
      bytes,
      chunks: [{ address: 0, bytes }],
      style: kind,
      foreign: false,
    };
  }
  if (kind === 'foreign') {
    const write = pick(random, FOREIGN);
    const text = write(flat.subarray(0, 300));
    return {
      name: pick(random, ['image.txt', 'image.bin', 'image']),
      bytes: new TextEncoder().encode(text),
      chunks,
      style: text.slice(0, 60),
      foreign: true,
    };
  }
  if (kind === 'addressed') {
    const text = chunks
      .map((c) => `@${hex(c.address, 8)}\n${Array.from(c.bytes, (v) => hex(v, 2)).join(' ')}`)
      .join('\n');
    return {
      name: 'image.mem',
      bytes: new TextEncoder().encode(`// written\n${text}\n`),
      chunks,
      style: kind,
      foreign: false,
    };
  }
  const lineBytes = pick(random, [1, 8, 13, 16, 32, 64, 128, 200]);
  let lines = saveImage(chunks, kind === 'hex' ? 'intel-hex' : 's-record', { lineBytes })
    .trimEnd()
    .split('\n');
  const style = [kind, String(lineBytes)];
  if (random() < 0.3) {
    lines = lines.slice(0, -1);
    style.push('no end');
  }
  if (kind === 's-record' && random() < 0.5) {
    lines = lines.filter((line) => !/^S[056]/.test(line));
    style.push('no header, no count');
  }
  if (random() < 0.3) {
    lines = ['; a remark', ...lines.slice(0, 2), '', '# another', ...lines.slice(2)];
    style.push('remarks');
  }
  if (random() < 0.2) {
    lines = lines.map((line) => (/^[:S]/.test(line) ? line[0] + line.slice(1).toLowerCase() : line));
    style.push('small letters');
  }
  const newline = pick(random, ['\n', '\r\n', '\r']);
  const text = lines.join(newline) + (random() < 0.8 ? newline : '') + (random() < 0.1 ? '\u001a' : '');
  const bytes = new TextEncoder().encode(random() < 0.1 ? `\uFEFF${text}` : text);
  return {
    name: pick(random, ['fw.hex', 'fw.txt', 'fw.bin', 'fw.s19']),
    bytes,
    chunks,
    style: style.join(' '),
    foreign: false,
  };
}

/** Nothing where it is right or asked; else what is wrong. */
export function firmwareOff(file: WrittenFirmware): { readonly off?: string; readonly asked: boolean } {
  const { importer, outcome } = importFile(file);
  if (outcome.kind === 'refused')
    return file.foreign ? { asked: false } : { off: `refused: ${outcome.problems[0].message}`, asked: false };
  if (outcome.questions.length > 0) return { asked: true };
  if (file.foreign) return { off: `taken as ${importer}`, asked: false };
  const got = (outcome.value as LoadedImage).chunks;
  const same =
    got.length === file.chunks.length &&
    file.chunks.every(
      (c, i) =>
        c.address === got[i].address &&
        c.bytes.length === got[i].bytes.length &&
        c.bytes.every((v, k) => v === got[i].bytes[k]),
    );
  return same ? { asked: false } : { off: `other bytes as ${importer}`, asked: false };
}
