import { SupplyLost, openFlash, planWrite, readFlash, usualChip, writeFlash } from '../../core/flash';
import { seededRandom } from '../../core/math';
import { SimulatedProgrammer, type ProgrammerTrouble } from '.';

const SIZE = 128 * 1024;
const random = seededRandom(11);
const image = (size = SIZE): Uint8Array =>
  Uint8Array.from({ length: size }, (_, i) => (i % 8192 > 6500 ? 0xff : 256 * random()));
const ORIGINAL = image();
const TARGET = Uint8Array.from(ORIGINAL);
TARGET.set([1, 2, 3], 0x400);
TARGET.fill(0x5a, 0x9000, 0x9800);
const chip = usualChip(SIZE);

test('a chip is identified, its capacity and erases learned', async () => {
  const opened = await openFlash(new SimulatedProgrammer(ORIGINAL));
  expect(opened).toMatchObject({ ok: true, value: { identity: { bank: 1, sizeBytes: SIZE }, chip } });
});

test.each<[ProgrammerTrouble, string]>([
  [{ absent: true }, 'no chip answers'],
  [{ identity: [0, 0, 0] }, 'held low'],
  [{ identity: [0x6a, 0x40, 17] }, 'odd parity'],
  [{ identity: [0x6b, 0x40, 3] }, 'Expected a capacity'],
  [{ identity: [0x6b, 0x40, 18] }, 'Expected one capacity'],
])('an identification that cannot be is refused with what it points at (%#)', async (trouble, words) => {
  const opened = await openFlash(new SimulatedProgrammer(ORIGINAL, trouble));
  expect(opened.ok ? '' : opened.problems[0].message).toContain(words);
});

test('one bit in a hundred thousand read wrong: the majority is the true image, and the contact is spoken of', async () => {
  for (let seed = 1; seed <= 10; seed++) {
    const bench = new SimulatedProgrammer(ORIGINAL, { bitErrorRate: 1e-5 }, { seed });
    const read = await readFlash(bench, chip, 3);
    if (!read.ok) throw new Error();
    expect(read.value.good).toBe(true);
    expect(read.value.summary).toContain('the contact is bad');
    expect(Buffer.compare(Buffer.from(read.value.bytes), Buffer.from(ORIGINAL))).toBe(0);
    // 31 wrong bits expected in three reads of 2^20 bits; 50 is four standard deviations above.
    expect(read.value.unstableBytes).toBeGreaterThan(5);
    expect(read.value.unstableBytes).toBeLessThan(55);
  }
});

test('contact too bad for any number of reads is never called good', async () => {
  for (const bitErrorRate of [0.02, 0.1, 0.3]) {
    for (const reads of [2, 3, 7]) {
      const read = await readFlash(new SimulatedProgrammer(ORIGINAL, { bitErrorRate }), chip, reads);
      expect(read.ok && read.value.good).toBe(false);
    }
  }
});

test('what is called good is right, whatever the contact', async () => {
  let good = 0;
  for (let seed = 1; seed <= 40; seed++) {
    const bench = new SimulatedProgrammer(ORIGINAL, { bitErrorRate: 10 ** -(2 + (seed % 5)) }, { seed });
    const read = await readFlash(bench, chip, 3 + 2 * (seed % 4));
    if (!read.ok || !read.value.good) continue;
    good += 1;
    expect(Buffer.compare(Buffer.from(read.value.bytes), Buffer.from(ORIGINAL))).toBe(0);
  }
  expect(good).toBeGreaterThan(15);
});

test('a write keeps what was there first, changes as little as it can, and is verified', async () => {
  const bench = new SimulatedProgrammer(ORIGINAL);
  let kept: Uint8Array | undefined;
  const written = await writeFlash(bench, chip, TARGET, {
    keepOriginal: async (bytes) => {
      expect(Buffer.compare(Buffer.from(bench.cells), Buffer.from(ORIGINAL))).toBe(0);
      kept = bytes;
    },
  });
  expect(written).toMatchObject({ ok: true, value: { tries: 1, protection: false } });
  expect(Buffer.compare(Buffer.from(bench.cells), Buffer.from(TARGET))).toBe(0);
  expect(Buffer.compare(Buffer.from(kept!), Buffer.from(ORIGINAL))).toBe(0);
});

test('the supply cut at any of 300 moments: the write goes on to a verified image, the original is kept', async () => {
  const small = 16 * 1024;
  const [from, to] = [ORIGINAL.slice(0, small), TARGET.slice(0, small)];
  to.set(image(4096), 8192);
  const smallChip = usualChip(small);
  const whole = new SimulatedProgrammer(from);
  await writeFlash(whole, smallChip, to, {});
  const draw = seededRandom(300);
  let cuts = 0;
  for (let k = 0; k < 300; k++) {
    const bench = new SimulatedProgrammer(from, { supplyLostAtMs: draw() * whole.elapsedMs }, { seed: k });
    let kept: Uint8Array | undefined;
    const keepOriginal = async (bytes: Uint8Array): Promise<void> => void (kept = bytes);
    await writeFlash(bench, smallChip, to, { keepOriginal }).catch((error: unknown) => {
      if (!(error instanceof SupplyLost)) throw error;
      cuts += 1;
    });
    bench.mended();
    const again = await writeFlash(bench, smallChip, to, kept ? {} : { keepOriginal });
    expect(again.ok).toBe(true);
    expect(Buffer.compare(Buffer.from(bench.cells), Buffer.from(to))).toBe(0);
    expect(Buffer.compare(Buffer.from(kept!), Buffer.from(from))).toBe(0);
  }
  expect(cuts).toBe(300);
});

test('protected blocks are opened for the write and closed again', async () => {
  const bench = new SimulatedProgrammer(ORIGINAL, {}, { status: 0b1000 });
  const target = Uint8Array.from(ORIGINAL);
  target[SIZE - 100] ^= 0xff;
  const written = await writeFlash(bench, chip, target, {});
  expect(written).toMatchObject({ ok: true, value: { protection: true } });
  expect([bench.cells[SIZE - 100], bench.statusBits]).toEqual([target[SIZE - 100], 0b1000]);
});

test('a worn sector is named instead of being written for ever', async () => {
  const bench = new SimulatedProgrammer(ORIGINAL, { wornSector: 0x9000 });
  const target = Uint8Array.from(TARGET);
  target[0x9000] = 0xff;
  const written = await writeFlash(bench, chip, target, {});
  expect(written.ok ? '' : written.problems[0].message).toContain('the sector at 0x009000 does not take it');
});

test('nothing is written over bad contact, nor an image of another size', async () => {
  const bench = new SimulatedProgrammer(ORIGINAL, { bitErrorRate: 0.01 });
  const bad = await writeFlash(bench, chip, TARGET, {});
  expect(bad.ok ? '' : bad.problems[0].message).toMatch(/^Not written: .*contact is bad/);
  const short = await writeFlash(bench, chip, TARGET.slice(1), {});
  expect(short.ok ? '' : short.problems[0].message).toContain('got 131,071');
  expect(Buffer.compare(Buffer.from(bench.cells), Buffer.from(ORIGINAL))).toBe(0);
});

test('a stuck address line makes the content repeat, alike on every read', async () => {
  const bench = new SimulatedProgrammer(ORIGINAL, { stuckAddressBit: 16 });
  const read = await readFlash(bench, chip, 2);
  if (!read.ok) throw new Error();
  expect(read.value.unstableBytes).toBe(0);
  expect(read.value.bytes.slice(65536, 65600)).toEqual(read.value.bytes.slice(0, 64));
});

test('asked to stop, a read keeps nothing and a write says what the chip holds', async () => {
  const bench = new SimulatedProgrammer(ORIGINAL);
  expect(await readFlash(bench, chip, 2, (done) => done > 0.4)).toMatchObject({ ok: false });
  const stopped = await writeFlash(bench, chip, TARGET, { onProgress: () => true });
  expect(stopped.ok ? '' : stopped.problems[0].message).toContain('write the original back');
  expect(planWrite(chip, bench.cells, ORIGINAL).steps).toEqual([]);
});
