import { performance } from 'node:perf_hooks';
import { CHECKSUMS, checksumByName, findChecksums, writeField, type Checksum } from '../../src/core/checksum';
import { seededRandom, type Random } from '../../src/core/math';
import { note, ratio, section } from '../print';

const BLOCK = 64;
const MIB = 2 ** 20;
/** So many units with one layout make an 8-, a 16- and a 32-bit field sure over any range. */
const ENOUGH = { 1: 8, 2: 4, 4: 2 } as const;

const noise = (random: Random, size: number): Uint8Array => Uint8Array.from({ length: size }, () => 256 * random());

interface Planted {
  readonly images: readonly Uint8Array[];
  readonly algorithm: string;
  readonly from: number;
  readonly to: number;
}

/** A checksum with its field after the range, at its end, in the header outside it or in the header inside it. */
function plant(checksum: Checksum, kind: number, size: number, random: Random): Planted {
  const blocks = size / BLOCK;
  const first = 2 + Math.floor(random() * (blocks - 6));
  const last = first + 2 + Math.floor(random() * (blocks - first - 3));
  const word = Math.floor((random() * BLOCK) / checksum.bytes) * checksum.bytes;
  const [from, to, at] = [
    [BLOCK * first, BLOCK * last, BLOCK * last],
    [BLOCK * first, BLOCK * last - checksum.bytes, BLOCK * last - checksum.bytes],
    [BLOCK * first, BLOCK * last, word],
    [0, BLOCK * last, word],
  ][kind];
  const bigEndian = random() < 0.5;
  const images = Array.from({ length: ENOUGH[checksum.bytes] }, () => {
    const bytes = noise(random, size);
    if (kind === 3) bytes.fill(0, at, at + checksum.bytes);
    writeField(bytes, at, checksum.bytes, bigEndian, checksum.of(bytes, from, to));
    return bytes;
  });
  return { images, algorithm: checksum.name, from, to };
}

function benchRecall(): void {
  section('Checksums found by their values: 40 sets of images with one planted, 40 without');
  let [found, wrong, claimed] = [0, 0, 0];
  for (let k = 0; k < 40; k++) {
    const random = seededRandom(k + 100);
    const size = BLOCK * (64 + Math.floor(random() * (MIB / BLOCK - 64)));
    const planted = plant(CHECKSUMS[k % CHECKSUMS.length], k % 4, size, random);
    const { claims } = findChecksums(planted.images);
    const isRight = (c: (typeof claims)[number]): boolean =>
      c.algorithm === planted.algorithm && c.from === planted.from && c.to === planted.to;
    if (claims.some(isRight)) found += 1;
    wrong += claims.filter((c) => !isRight(c)).length;
    const without = Array.from({ length: [1, 2, 4, 8][k % 4] }, () => noise(random, size >> 2));
    claimed += findChecksums(without).claims.length;
  }
  note(`planted ${found} of 40 found, ${wrong} others claimed; without one ${claimed} claimed`);
}

function benchSpeed(): void {
  section('1 MiB, every algorithm, ranges from 64 to 64 bytes');
  const images = [noise(seededRandom(1), MIB)];
  const start = performance.now();
  const { tried } = findChecksums(images);
  const tookS = (performance.now() - start) / 1000;
  note(`one image: ${(tried / 1e9).toFixed(0)} thousand million ranges and fields tried in ${tookS.toFixed(1)} s`);
  const two = [images[0], noise(seededRandom(2), MIB)];
  const again = performance.now();
  findChecksums(two);
  note(`two images: ${((performance.now() - again) / 1000).toFixed(1)} s (wanted at most 10)`);
  directly(images[0]);
}

/**
 * The same ranges with one algorithm, one start at a time, the register going on from end to end and each value looked for
 * among the fields' values: its time from a share of the starts.
 */
function directly(bytes: Uint8Array): void {
  const checksum = checksumByName('CRC-32/ISO-HDLC')!;
  if (checksum.kind !== 'crc') return;
  const ours = performance.now();
  findChecksums([bytes], { algorithms: [checksum] });
  const oursMs = performance.now() - ours;
  const blocks = bytes.length / BLOCK;
  const tried = 32;
  const fields = new Set<number>();
  const view = new DataView(bytes.buffer);
  for (let at = 0; at < BLOCK; at += 4) {
    for (const place of [at, bytes.length - BLOCK + at]) {
      fields.add(view.getUint32(place, true));
      fields.add(view.getUint32(place, false));
    }
  }
  let held = 0;
  const looks = (register: number, to: number): void => {
    const value = (register ^ checksum.crc.xorOut) >>> 0;
    if (fields.has(value)) held += 1;
    if (to + 4 > bytes.length) return;
    if (view.getUint32(to, true) === value || view.getUint32(to, false) === value) held += 1;
  };
  const start = performance.now();
  for (let k = 0; k < tried; k++) {
    for (const beside of [0, 4]) {
      const from = Math.floor((k * blocks) / tried) * BLOCK + beside;
      let [register, at] = [checksum.crc.init, from];
      for (let to = from - beside + BLOCK; to <= bytes.length; to += BLOCK) {
        for (const end of [to - 4, to]) {
          register = checksum.crc.run(bytes, register, at, end);
          at = end;
          looks(register, end);
        }
      }
    }
  }
  const directMs = ((performance.now() - start) / tried) * blocks;
  ratio('direct search with a running register / ours, CRC-32', directMs / oursMs, `at least 200; ${held} by chance`);
}

benchSpeed();
benchRecall();
