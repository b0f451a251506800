import { parse } from 'intel-hex';
import { seededRandom } from '../math';
import { asItWas, flatten, formatOf, loadImage, saveImage, type Chunk } from '.';

const bytesOf = (text: string): Uint8Array => new TextEncoder().encode(text);
const load = (text: string) => loadImage(bytesOf(text));
const problem = (text: string): string => {
  const loaded = load(text);
  if (loaded.ok) throw new Error('expected a problem');
  return loaded.problems.map((p) => `${p.at ?? ''}: ${p.message}`).join(' ');
};

/** Commonly published example of the format, from memory. */
const HEX = `:10010000214601360121470136007EFE09D2190140
:100110002146017E17C20001FF5F16002148011928
:10012000194E79234623965778239EDA3F01B2CAA7
:100130003F0156702B5E712B722B732146013421C7
:00000001FF
`;
/** Commonly published example of the format, from memory. */
const SREC = `S00F000068656C6C6F202020202000003C
S11F00007C0802A6900100049421FFF07C6C1B787C8C23783C6000003863000026
S11F001C4BFFFFE5398000007D83637880010014382100107C0803A64E800020E9
S111003848656C6C6F20776F726C642E0A0042
S5030003F9
S9030000FC
`;

test('the published examples are read: where their bytes lie and what they are', () => {
  const hex = load(HEX);
  if (!hex.ok) throw new Error(problem(HEX));
  expect(hex.value.chunks).toHaveLength(1);
  expect(hex.value.chunks[0].address).toBe(0x100);
  expect(hex.value.chunks[0].bytes).toHaveLength(64);
  const s = load(SREC);
  if (!s.ok) throw new Error(problem(SREC));
  expect(s.value).toMatchObject({ format: 's-record', startAddress: 0 });
  const text = String.fromCharCode(...flatten(s.value.chunks).bytes.slice(0x38, 0x44));
  expect(text).toBe('Hello world.');
});

test('what was read is written byte for byte as it was: line lengths, holes, letters, line ends', () => {
  const shuffled = `:0200000480007A\r\n:03000000a1b2c3e7\r\n:020010000A0BD9\r\n:0400000580000100 76\r\n`.replace(
    ' ',
    '',
  );
  const odd = `${shuffled}:00000001FF`;
  for (const text of [HEX, SREC, SREC.trimEnd(), HEX.replace(/\n/g, '\r\n'), odd]) {
    const loaded = load(text);
    if (!loaded.ok) throw new Error(problem(text));
    expect(asItWas(loaded.value)).toBe(text);
  }
});

test('extended segment and linear addresses, start records and holes', () => {
  // A record of an extended segment runs round within its 64 KiB; the sums are made by hand.
  const text = ':020000021000EC\n:02FFFF0011AA45\n:0400000312345678E5\n:00000001FF\n';
  const loaded = load(text);
  if (!loaded.ok) throw new Error(problem(text));
  expect(loaded.value.chunks.map((c) => [c.address, [...c.bytes]])).toEqual([
    [0x10000, [0xaa]],
    [0x1ffff, [0x11]],
  ]);
  expect(loaded.value.startAddress).toBe(0x12340 + 0x5678);
});

test('random images with holes come back from both formats byte for byte, at every address width', () => {
  const random = seededRandom(3);
  const upTo = (n: number): number => Math.floor(n * random());
  for (let k = 0; k < 60; k++) {
    const chunks: Chunk[] = [];
    let at = [0, 0xfff0, 0x123456, 0xfffff000][k % 4];
    for (let c = 0; c < 1 + upTo(3); c++) {
      const bytes = Uint8Array.from({ length: 1 + upTo(200) }, () => upTo(256));
      chunks.push({ address: at, bytes });
      at += bytes.length + 1 + upTo(400);
    }
    const startAddress = k % 2 === 0 ? chunks[0].address : undefined;
    for (const format of ['intel-hex', 's-record'] as const) {
      const text = saveImage(chunks, format, { lineBytes: 1 + upTo(64), startAddress });
      const loaded = load(text);
      if (!loaded.ok) throw new Error(problem(text));
      expect(loaded.value.format).toBe(format);
      expect(loaded.value.chunks).toEqual(chunks);
      if (startAddress !== undefined) expect(loaded.value.startAddress).toBe(startAddress);
      expect(asItWas(loaded.value)).toBe(text);
    }
  }
});

test('an independent package reads the same bytes from what is written', () => {
  const random = seededRandom(9);
  const bytes = Uint8Array.from({ length: 700 }, () => 256 * random());
  const text = saveImage([{ address: 0xff80, bytes }], 'intel-hex');
  const parsed = parse(text, 0x20000);
  expect([...parsed.data.subarray(0xff80, 0xff80 + 700)]).toEqual([...bytes]);
});

test.each([
  ['10010000214601360121470136007EFE09D2190140', 'raw'],
  [':1001', 'raw'],
  [HEX, 'intel-hex'],
  [SREC, 's-record'],
])('what a file holds is told by its content: %p', (text, format) => {
  expect(formatOf(bytesOf(text))).toBe(format);
});

test.each([
  [HEX.replace('0140\n', '0141\n'), 'line 1, checksum: Expected 40; got 41.'],
  [HEX.replace('FF5F16', 'FG5F16'), 'line 2: Expected hexadecimal digits; got “G” as character 27.'],
  [
    HEX.replace(':1001200019', ':1101200019'),
    'line 3, length: Expected 17 bytes of data as the length field says; got 16.',
  ],
  [HEX + ':00000001FF\n', 'line 6: Expected nothing after the end record.'],
  [':0000000600FA\n', 'line 1'],
  [':00000006FA\n:00000001FF\n', 'line 1, type: Expected a record type from 00 to 05; got 06.'],
  [`:01000004AB50\n:00000001FF\n`, 'line 1, length: Expected 2 bytes of data in a record of type 04; got 1.'],
  [
    HEX.replace(':00000001FF', ':10010000214601360121470136007EFE09D2190140\n:00000001FF'),
    'address 00000100 is given twice',
  ],
  [HEX.replace(':1001300', '1001300'), 'line 4: Expected a colon as the first character; got “1”.'],
  [SREC.replace('003C', '003D'), 'line 1, checksum: Expected 3C; got 3D.'],
  [SREC.replace('S503', 'S403'), 'line 5, type: Expected a type from 0 to 9 but 4; got “4”.'],
  [SREC.replace('S5030003F9', 'S5030004F8'), 'line 5, count: Expected 3, the data records before it; got 4.'],
  [SREC.replace('S111', 'S112'), 'line 4, count: Expected 18 bytes after it as the count says; got 17.'],
])('a malformed line is named with its field, what was expected and what was got (%#)', (text, words) => {
  expect(problem(text)).toContain(words);
});

test('a file without its end record is read, and that is said', () => {
  for (const text of [HEX.replace(':00000001FF\n', ''), SREC.replace('S9030000FC\n', '')]) {
    const loaded = load(text);
    expect(loaded.ok && loaded.value.notes.join(' ')).toMatch(
      /^The end record .* is missing: the file stops after line \d/,
    );
    expect(loaded.ok && asItWas(loaded.value)).toBe(text);
  }
});

test('comments are kept where they stood and count for nothing', () => {
  const [first, ...rest] = HEX.split('\n');
  const text = ['; made by hand', first, '', '# middle', ...rest].join('\n');
  const loaded = load(text);
  if (!loaded.ok) throw new Error('expected an image');
  expect(asItWas(loaded.value)).toBe(text);
  expect(loaded.value.chunks).toEqual(load(HEX).ok && (load(HEX) as { value: { chunks: unknown } }).value.chunks);
});

test('an empty file and one that is too large are refused', () => {
  expect(problem('')).toContain('the file is empty');
  expect(loadImage(new Uint8Array(64 * 1024 * 1024 + 1))).toMatchObject({
    problems: [{ message: 'Expected at most 64 MiB; got 64.0.' }],
  });
});
