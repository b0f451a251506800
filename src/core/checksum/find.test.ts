import { seededRandom, type Random } from '../math';
import { CHECKSUMS, checksumByName, findChecksums, readField, writeField, type Checksum, type FoundChecksum } from '.';
import { LinearMap, Powers } from './linear-map';

const BLOCK = 64;
/** So many units with one layout make an 8-, a 16- and a 32-bit field sure over any range. */
const ENOUGH = { 1: 8, 2: 4, 4: 2 } as const;

interface Planted {
  readonly images: readonly Uint8Array[];
  readonly from: number;
  readonly to: number;
  readonly at: number;
}

const noise = (random: Random, size: number): Uint8Array => Uint8Array.from({ length: size }, () => 256 * random());

/** Images of several units with one checksum: its field after the range, at its end, in a header outside or inside it. */
function plant(checksum: Checksum, kind: number, size: number, random: Random): Planted {
  const blocks = size / BLOCK;
  const first = 2 + Math.floor(random() * (blocks - 6));
  const last = first + 2 + Math.floor(random() * (blocks - first - 3));
  const word = Math.floor((random() * BLOCK) / checksum.bytes) * checksum.bytes;
  const [from, to, at, fill] = [
    [BLOCK * first, BLOCK * last, BLOCK * last, undefined],
    [BLOCK * first, BLOCK * last - checksum.bytes, BLOCK * last - checksum.bytes, undefined],
    [BLOCK * first, BLOCK * last, word, undefined],
    [0, BLOCK * last, word, 0],
    [0, BLOCK * last, word, 0xff],
  ][kind] as [number, number, number, number | undefined];
  const bigEndian = random() < 0.5;
  const images = Array.from({ length: ENOUGH[checksum.bytes] }, () => {
    const bytes = noise(random, size);
    if (fill !== undefined) bytes.fill(fill, at, at + checksum.bytes);
    writeField(bytes, at, checksum.bytes, bigEndian, checksum.of(bytes, from, to));
    return bytes;
  });
  return { images, from, to, at };
}

const sizeOf = (random: Random): number => BLOCK * (40 + Math.floor(random() * 400));
const isPlanted = (f: FoundChecksum, { from, to, at }: Planted): boolean =>
  f.from === from && f.to === to && (f.anywhere === true || f.field.offset === at);

test.each(CHECKSUMS.map((c, k) => [c.name, k] as const))(
  '%s is found where it was planted, and nothing else',
  (name, k) => {
    const random = seededRandom(k + 1);
    const planted = plant(checksumByName(name)!, k % 5, sizeOf(random), random);
    const { claims } = findChecksums(planted.images);
    expect(claims.map((c) => c.algorithm)).toEqual([name]);
    expect(claims.every((c) => isPlanted(c, planted))).toBe(true);
  },
);

test('images without a checksum: nothing is claimed, however many there are', () => {
  for (let seed = 0; seed < 6; seed++) {
    const random = seededRandom(900 + seed);
    const size = sizeOf(random);
    const images = Array.from({ length: [1, 2, 4][seed % 3] }, () => {
      const bytes = noise(random, size);
      bytes.fill(0xff, size >> 1, (size >> 1) + 500);
      return bytes;
    });
    expect(findChecksums(images).claims).toEqual([]);
  }
});

test('one image alone: 32 bits over the whole are claimed, 8 bits over any range are not', () => {
  const random = seededRandom(31);
  const bytes = noise(random, 64 * 64);
  const [whole, short] = [checksumByName('CRC-32/MPEG-2')!, checksumByName('CRC-8/SMBUS')!];
  writeField(bytes, bytes.length - 4, 4, true, whole.of(bytes, 0, bytes.length - 4));
  expect(findChecksums([bytes]).claims).toMatchObject([
    { algorithm: 'CRC-32/MPEG-2', from: 0, to: bytes.length - 4, field: { bigEndian: true, fill: 'outside' } },
  ]);
  writeField(bytes, 640, 1, true, short.of(bytes, 128, 640));
  expect(findChecksums([bytes]).claims.some((c) => c.algorithm === 'CRC-8/SMBUS')).toBe(false);
});

test('the same read twice is no second witness', () => {
  const random = seededRandom(5);
  const { images } = plant(checksumByName('CRC-16/MODBUS')!, 0, 64 * 100, random);
  const once = findChecksums([images[0], images[0], images[0], images[0]]);
  expect(once.claims).toEqual([]);
  expect(findChecksums(images).claims).toHaveLength(1);
});

test('every range is really searched: the fast way finds just what a direct search finds', () => {
  const random = seededRandom(77);
  const checksum = checksumByName('CRC-16/KERMIT')!;
  const { images, from, to } = plant(checksum, 0, 64 * 24, random);
  const direct: string[] = [];
  for (let a = 0; a < 24; a++) {
    for (let b = a + 1; b < 24; b++) {
      const holds = images.every((i) => {
        const value = checksum.of(i, BLOCK * a, BLOCK * b);
        return [value, ((value & 255) << 8) | (value >> 8)].includes(i[BLOCK * b] | (i[BLOCK * b + 1] << 8));
      });
      if (holds) direct.push(`${BLOCK * a} ${BLOCK * b}`);
    }
  }
  expect(direct).toEqual([`${from} ${to}`]);
  const { claims } = findChecksums(images, { algorithms: [checksum] });
  expect(claims.map((c) => `${c.from} ${c.to}`)).toEqual(direct);
});

test('progress is told by algorithm, and asked to stop it stops', () => {
  const images = [noise(seededRandom(1), 4096)];
  const seen: number[] = [];
  findChecksums(images, { onProgress: (done) => seen.push(done) > 2 });
  expect(seen.length).toBe(3);
});

test('a linear map, its powers and its inverse', () => {
  const random = seededRandom(4);
  const columns = Array.from({ length: 16 }, (_, k) => ((2 ** k) ^ (k > 0 ? Math.floor(random() * 2 ** k) : 0)) >>> 0);
  const map = LinearMap.of(16, (bit) => columns[Math.log2(bit)]);
  const back = new Powers(map.inverse(16), 16);
  for (let k = 0; k < 50; k++) {
    const v = Math.floor(65536 * random());
    let there = v;
    for (let n = 0; n < 13; n++) there = map.apply(there);
    expect(new Powers(map, 16).apply(v, 13)).toBe(there);
    expect(back.apply(there, 13)).toBe(v);
    expect(back.power(13).apply(there)).toBe(v);
  }
  expect(() => LinearMap.of(2, () => 1).inverse(2)).toThrow('no inverse');
});

describe('units that share their code and differ in a serial number', () => {
  const SIZE = 8192;
  const NAMES = [
    'CRC-16/ARC',
    'CRC-32/ISO-HDLC',
    'CRC-16/IBM-3740',
    'CRC-32/MPEG-2',
    'CRC-8/SMBUS',
    'Fletcher-16',
    'sum of bytes, 8 bits',
  ];
  type Place = readonly [from: number, to: number, field: number];
  /** Images of one code, a serial number at 0x440 and checksums over the given ranges; some with long padding. */
  function units(seed: number, name: string, count: number, places: (width: number) => readonly Place[]): Uint8Array[] {
    const random = seededRandom(seed);
    const checksum = checksumByName(name)!;
    const code = Uint8Array.from({ length: SIZE }, () => Math.floor(random() * 256));
    if (seed % 3 === 1) code.fill(0, 5120);
    if (seed % 3 === 2) code.fill(0xff, 6144);
    return Array.from({ length: count }, () => {
      const image = code.slice();
      for (let k = 0; k < 8; k++) image[0x440 + k] = Math.floor(random() * 256);
      for (const [from, to, field] of places(checksum.bytes))
        writeField(image, field, checksum.bytes, false, checksum.of(image, from, to));
      return image;
    });
  }
  const is =
    ([from, to, field]: Place) =>
    (c: { from: number; to: number; field: { offset: number } }): boolean =>
      c.from === from && c.to === to && c.field.offset === field;

  test('what is claimed is true; what its witnesses do not settle stands among the possible', () => {
    const place: Place = [1024, 2048, 2048];
    for (const [k, name] of NAMES.entries()) {
      const { claims, possible } = findChecksums(units(40 + k, name, 2 + (k % 6), () => [place]));
      expect(`${name}: ${claims.filter((c) => c.algorithm !== name || !is(place)(c)).length} false`).toBe(
        `${name}: 0 false`,
      );
      const wide = checksumByName(name)!.bytes > 1;
      expect(wide ? claims.some(is(place)) : [...claims, ...possible].length > 0).toBe(true);
    }
  });

  test('a sum over data with its own checksum is constant, and is no witness however many units there are', () => {
    // The outer range holds the inner one and its field: for a linear code the outer field never changes (CRC-16, CRC-8).
    for (const name of ['CRC-16/ARC', 'CRC-8/SMBUS']) {
      const places = (width: number): readonly Place[] => [
        [1024, 2048, 2048],
        [0, 4096, SIZE - width],
      ];
      const images = units(61, name, 6, places);
      const width = checksumByName(name)!.bytes;
      expect(new Set(images.map((bytes) => readField(bytes, SIZE - width, width, false))).size).toBe(1);
      const { claims } = findChecksums(images);
      expect(claims.filter((c) => !is([1024, 2048, 2048])(c))).toEqual([]);
    }
  });
});
