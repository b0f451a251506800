import { seededRandom, type Random } from '../math';
import {
  judgeReads,
  makeSfdp,
  planWrite,
  protectedFrom,
  readIdentity,
  readSfdp,
  usualChip,
  withoutProtection,
  type FlashChip,
} from '.';

/** A flash so small that every set of erases can be tried. */
const TINY: FlashChip = {
  sizeBytes: 32,
  pageBytes: 2,
  pageMs: 0.7,
  erases: [
    { bytes: 4, opcode: 1, typicalMs: 4.5 },
    { bytes: 8, opcode: 2, typicalMs: 6 },
    { bytes: 16, opcode: 3, typicalMs: 7.5 },
  ],
};

/** The quickest over all sets of erases: each block of each kind erased or not. */
function byBruteForce(chip: FlashChip, current: Uint8Array, target: Uint8Array): number {
  const blocks = chip.erases.flatMap((e) =>
    Array.from({ length: chip.sizeBytes / e.bytes }, (_, k) => ({ at: k * e.bytes, ...e })),
  );
  let best = Infinity;
  for (let set = 0; set < 2 ** blocks.length; set++) {
    const after = Uint8Array.from(current);
    let ms = 0;
    blocks.forEach((b, k) => {
      if (!((set >>> k) & 1)) return;
      ms += b.typicalMs;
      after.fill(0xff, b.at, b.at + b.bytes);
    });
    if (ms >= best) continue;
    for (let page = 0; page < chip.sizeBytes && ms < best; page += chip.pageBytes) {
      let differs = false;
      for (let i = page; i < page + chip.pageBytes; i++) {
        if ((after[i] & target[i]) !== target[i]) ms = Infinity;
        if (after[i] !== target[i]) differs = true;
      }
      if (differs) ms += chip.pageMs;
    }
    best = Math.min(best, ms);
  }
  return best;
}

const drawn = (random: Random, size: number): Uint8Array =>
  Uint8Array.from({ length: size }, () => (random() < 0.4 ? 0xff : 256 * random()));

test('the write plan is as quick as the best of all sets of erases, and really leads there', () => {
  const random = seededRandom(21);
  for (let k = 0; k < 60; k++) {
    const current = drawn(random, TINY.sizeBytes);
    const target = Uint8Array.from(current, (b) => (random() < [0.05, 0.2, 0.6][k % 3] ? 256 * random() : b));
    const plan = planWrite(TINY, current, target);
    expect(plan.tookMs).toBeCloseTo(byBruteForce(TINY, current, target), 9);
    const after = Uint8Array.from(current);
    for (const step of plan.steps) {
      if (step.kind === 'erase') after.fill(0xff, step.offset, step.offset + step.erase.bytes);
      else step.bytes.forEach((b, i) => (after[step.offset + i] &= b));
    }
    expect([...after]).toEqual([...target]);
  }
});

test('one byte of the settings changed costs one erase of one sector; clearing bits costs none; nothing costs nothing', () => {
  const chip = usualChip(128 * 1024);
  const current = Uint8Array.from({ length: chip.sizeBytes }, (_, i) => (i * 37) & 255);
  const changed = Uint8Array.from(current);
  changed[0x8123] = 0xff;
  const erases = planWrite(chip, current, changed).steps.filter((s) => s.kind === 'erase');
  expect(erases.map((s) => s.offset)).toEqual([0x8000]);
  const cleared = Uint8Array.from(current);
  cleared[0x8124] = 0;
  expect(planWrite(chip, current, cleared)).toMatchObject({ erasedBytes: 0, pages: 1 });
  expect(planWrite(chip, current, current).steps).toEqual([]);
});

test('the discovery table comes back as it was made; a broken one is refused', () => {
  const chip = usualChip(2 ** 20);
  const table = makeSfdp(chip);
  // JESD216: the signature is the letters SFDP.
  expect(String.fromCharCode(...table.slice(0, 4))).toBe('SFDP');
  const erases = chip.erases.map(({ bytes, opcode }) => ({ bytes, opcode }));
  expect(readSfdp(table)).toEqual({ ok: true, value: { sizeBytes: 2 ** 20, erases } });
  expect(readSfdp(table.slice(0, 8))).toMatchObject({ ok: false });
  expect(readSfdp(table.slice(0, 30))).toMatchObject({ ok: false });
  expect(readSfdp(new Uint8Array(64))).toMatchObject({
    problems: [{ message: expect.stringContaining('got 00000000') }],
  });
});

test('makers’ codes: banks by continuation codes, odd parity, capacity as a power of two', () => {
  expect(readIdentity([0x6b, 0x40, 0x14])).toMatchObject({ value: { bank: 1, maker: 0x6b, sizeBytes: 2 ** 20 } });
  expect(readIdentity([0x7f, 0x7f, 0x6b, 0x40, 0x14])).toMatchObject({ value: { bank: 3 } });
  expect(readIdentity([0x7f, 0x7f, 0x7f])).toMatchObject({
    problems: [{ message: expect.stringContaining('got 0 bytes') }],
  });
  expect(readIdentity([0x6b])).toMatchObject({ ok: false });
});

test('protection: nothing, then the top 64 KiB and its doublings', () => {
  expect([0, 0b100, 0b1000, 0b1100].map((s) => protectedFrom(s, 2 ** 20))).toEqual([
    2 ** 20,
    2 ** 20 - 65536,
    2 ** 20 - 131072,
    2 ** 20 - 262144,
  ]);
  expect(withoutProtection(0b11100011)).toBe(0b11100011 & ~0b11100);
});

test('reads: one proves nothing, two alike do, two that differ do not', () => {
  const a = new Uint8Array(4000).fill(7);
  const b = Uint8Array.from(a);
  b[10] ^= 4;
  expect(judgeReads([a])).toMatchObject({ good: false, summary: expect.stringContaining('One read proves nothing') });
  expect(judgeReads([a, a])).toMatchObject({ good: true, unstableBytes: 0 });
  expect(judgeReads([a, b])).toMatchObject({ good: false, unstable: [{ offset: 10 }] });
  const three = judgeReads([a, b, a]);
  expect(three.bytes).toEqual(a);
  expect(three.unstable).toEqual([{ offset: 10, agreeing: 2 }]);
});
