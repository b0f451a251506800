import { seededRandom } from '../math';
import { judgeReads, planWrite, usualChip, type WritePlan } from '.';

const chip = usualChip(128 * 1024);
const random = seededRandom(64);
const drawn = (): Uint8Array =>
  Uint8Array.from({ length: chip.sizeBytes }, (_, i) => ((i >>> 12) % 3 === 0 ? 0xff : 256 * random()));
/** What the chip holds after a plan, bits only cleared without an erase. */
function carriedOut(plan: WritePlan, current: Uint8Array): Uint8Array {
  const after = Uint8Array.from(current);
  for (const step of plan.steps) {
    if (step.kind === 'erase') after.fill(0xff, step.offset, step.offset + step.erase.bytes);
    else step.bytes.forEach((b, i) => (after[step.offset + i] &= b));
  }
  return after;
}
const same = (a: Uint8Array, b: Uint8Array): boolean => Buffer.compare(Buffer.from(a), Buffer.from(b)) === 0;

test('a plan leads from any content to any other, and the next plan has nothing to do', () => {
  for (let k = 0; k < 6; k++) {
    const [current, target] = [drawn(), drawn()];
    const after = carriedOut(planWrite(chip, current, target), current);
    expect(same(after, target)).toBe(true);
    expect(planWrite(chip, after, target).steps).toEqual([]);
  }
});

test('no plan takes longer than to erase and program everything, and a smaller change never longer than a larger', () => {
  const current = drawn();
  const target = Uint8Array.from(current);
  let before = 0;
  const everything = 2 * chip.erases[2].typicalMs + (chip.sizeBytes / chip.pageBytes) * chip.pageMs;
  for (let k = 0; k < 12; k++) {
    const at = 10_007 * k;
    target.fill(k, at, at + 600);
    const { tookMs } = planWrite(chip, current, target);
    expect(tookMs).toBeGreaterThanOrEqual(before);
    expect(tookMs).toBeLessThanOrEqual(everything);
    before = tookMs;
  }
});

test('an erased chip needs no erase; an empty target needs no page', () => {
  const [erased, full] = [new Uint8Array(chip.sizeBytes).fill(0xff), drawn()];
  expect(planWrite(chip, erased, full)).toMatchObject({ erasedBytes: 0 });
  expect(planWrite(chip, full, erased)).toMatchObject({ pages: 0, erasedBytes: chip.sizeBytes });
});

test('all erases come before all pages, and each page once', () => {
  const plan = planWrite(chip, drawn(), drawn());
  const kinds = plan.steps.map((s) => s.kind);
  expect(kinds.lastIndexOf('erase')).toBeLessThan(kinds.indexOf('program'));
  const pages = plan.steps.filter((s) => s.kind === 'program').map((s) => s.offset);
  expect(new Set(pages).size).toBe(pages.length);
});

/** Reads of one image with bits turned at random. */
function spoiled(image: Uint8Array, reads: number, rate: number): Uint8Array[] {
  return Array.from({ length: reads }, () =>
    image.map((byte) => {
      let out = byte;
      for (let bit = 0; bit < 8; bit++) if (random() < rate) out ^= 1 << bit;
      return out;
    }),
  );
}

test('the rate of wrong bits is estimated from how often reads disagree', () => {
  const image = Uint8Array.from({ length: 40_000 }, () => 256 * random());
  for (const rate of [1e-4, 1e-3, 1e-2]) {
    const { bitErrorRate } = judgeReads(spoiled(image, 5, rate));
    // 1.6 million bits: at the smallest rate 160 wrong ones, one standard deviation is 8 %.
    expect(Math.abs(bitErrorRate / rate - 1)).toBeLessThan(0.3);
  }
});

test('worse contact wants more reads, never fewer, until none suffice', () => {
  const image = Uint8Array.from({ length: 20_000 }, () => 256 * random());
  const wanted = [1e-5, 1e-4, 1e-3, 1e-2, 5e-2, 0.2].map(
    (rate) => judgeReads(spoiled(image, 3, rate)).readsWanted ?? Infinity,
  );
  expect([...wanted].sort((a, b) => a - b)).toEqual(wanted);
  expect(wanted[wanted.length - 1]).toBe(Infinity);
  expect(wanted[0]).toBe(3);
});

test('the majority does not depend on the order of the reads', () => {
  const image = Uint8Array.from({ length: 5_000 }, () => 256 * random());
  const reads = spoiled(image, 5, 1e-3);
  expect(same(judgeReads(reads).bytes, judgeReads([...reads].reverse()).bytes)).toBe(true);
  expect(same(judgeReads(reads).bytes, image)).toBe(true);
});
