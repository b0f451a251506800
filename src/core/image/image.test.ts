import crc32Package from 'crc-32';
import { demoFamily } from '../../../demo/files';
import { demoImage } from '../../../demo/images';
import { checksumByName, writeField } from '../checksum';
import { seededRandom } from '../math';
import { problemText } from '../result';
import {
  alignImages,
  compareImages,
  crc32,
  judgeImage,
  mergeImages,
  overviewOf,
  parseImageFamily,
  positionConflict,
  proposeTransplant,
  sha256Hex,
  type Decided,
  type ImageFamily,
  type Source,
  type Sources,
  type Transplant,
} from '.';

const family = demoFamily('heron-pd');
const patient = demoImage(family, { code: 4, unit: 31, position: 1, damagedBytes: 640 });
const donor = demoImage(family, { code: 4, unit: 12, position: 1 });
const { plan } = proposeTransplant(family, { patient, donor });
const ascii = (text: string): Uint8Array => new TextEncoder().encode(text);

describe('CRC-32', () => {
  test('the catalogue’s check value (CRC-32/ISO-HDLC of "123456789" is CBF43926)', () => {
    expect(crc32(ascii('123456789'))).toBe(0xcbf43926);
  });

  test('equals an independent package on random data of every length', () => {
    const random = seededRandom(2);
    for (let n = 0; n < 300; n++) {
      const bytes = Uint8Array.from({ length: n }, () => Math.floor(random() * 256));
      expect(crc32(bytes)).toBe(crc32Package.buf(bytes) >>> 0);
    }
  });
});

test('SHA-256 (FIPS 180-4, example of "abc", and the empty message)', () => {
  expect(sha256Hex(ascii('abc'))).toBe('ba7816bf8f01cfea414140de5dae2223b00361a396177a9cb410ff61f20015ad');
  expect(sha256Hex(new Uint8Array(0))).toBe('e3b0c44298fc1c149afbf4c8996fb92427ae41e4649b934ca495991b7852b855');
});

describe('judging', () => {
  test('a sound image holds; a damaged one names the checksum', () => {
    expect(judgeImage(family, donor)).toMatchObject({ sound: true, position: 1 });
    const verdict = judgeImage(family, patient);
    expect(verdict.sound).toBe(false);
    expect(verdict.troubles[0]).toMatch(/^code check does not hold: stored [0-9A-F]{8}, computed [0-9A-F]{8}\.$/);
  });

  test.each([
    ['blank', new Uint8Array(65536).fill(0xff), 'It is blank: every byte is FF.'],
    ['all zero', new Uint8Array(65536), 'It is all zero: look at the contact of the data line.'],
    ['of the wrong size', new Uint8Array(1000), 'Expected 64 KiB for Heron port image; got 1,000 bytes.'],
  ])('an image that is %s says so', (_, bytes, words) => {
    expect(judgeImage(family, bytes).troubles).toEqual([words]);
  });

  test('a read shifted by a byte does not start as the family does', () => {
    const shifted = new Uint8Array(65536).fill(0xff);
    shifted.set(donor.subarray(1));
    expect(judgeImage(family, shifted).troubles[0]).toMatch(/^Expected it to start with 4852504401; got 52504401/);
  });
});

test('comparison speaks of meaning: code damaged, identity as it should be', () => {
  const words = Object.fromEntries(compareImages(family, patient, donor).map((d) => [d.region.name, d]));
  expect(words.code.differingBytes).toBeGreaterThan(600);
  expect(words.code.runs[0].offset).toBeGreaterThan(256);
  expect(words['second code'].words).toBe('the same');
  expect(words['unit identity'].words).toBe('differs, as it should: it belongs to the unit');
  expect(words.settings.differingBytes).toBe(0);
  expect(words.unused.words).toBe('the same');
});

describe('merging', () => {
  const taken = { ...plan, take: { ...plan.take, code: 'donor' as const } };
  const merged = mergeImages(family, { patient, donor }, taken);
  const bytes = merged.ok ? merged.value.bytes : new Uint8Array();

  test('is sound, with the donor’s code and the patient’s identity and calibration', () => {
    expect(judgeImage(family, bytes).sound).toBe(true);
    expect(bytes.slice(256, 32764)).toEqual(donor.slice(256, 32764));
    expect(bytes.slice(40960, 41024)).toEqual(patient.slice(40960, 41024));
    expect(bytes.slice(45056, 45312)).toEqual(patient.slice(45056, 45312));
  });

  test('accounts for the origin of every byte, without gaps', () => {
    let at = 0;
    for (const run of merged.ok ? merged.value.audit : []) {
      expect(run.offset).toBe(at);
      at += run.length;
    }
    expect(at).toBe(family.sizeBytes);
  });

  test('refuses to copy an identity without a reason, a checksum, or from an image of another size', () => {
    const refused = (
      take: Record<string, Source>,
      from: Uint8Array | undefined = donor,
      more: Partial<Transplant> = {},
    ): string => {
      const sources = from ? { patient, donor: from } : { patient };
      const result = mergeImages(family, sources, { ...plan, take: { ...plan.take, ...take }, ...more });
      return result.ok ? '' : problemText(result.problems);
    };
    expect(refused({ 'unit identity': 'donor' })).toMatch(
      /identity of one unit: it stays the patient’s, unless a reason/,
    );
    expect(refused({ 'unit identity': 'donor' }, donor, { reason: 'sameUnit' })).toBe('');
    expect(refused({ 'code check': 'donor' })).toMatch(/it is computed, not copied/);
    expect(refused({ code: 'computed' })).toMatch(/only checksums are computed/);
    expect(refused({ code: 'donor' }, donor.subarray(1))).toBe(
      'Expected 65536 bytes for the donor’s image; got 65535.',
    );
    expect(refused({ code: 'donor' }, undefined, { take: { ...plan.take, code: 'donor' } })).toBe('');
    expect(refused({}, donor, { set: { position: 256 } })).toBe(
      'Expected a whole number from 0 to 255 for position; got 256.',
    );
    expect(refused({}, donor, { set: { colour: 1 } })).toMatch(
      /Expected a field of Heron port image \(position, charge limit\); got colour/,
    );
  });

  test('the origin of every byte is told without gaps, set fields among them', () => {
    const set = mergeImages(family, { patient, donor }, { ...taken, set: { position: 2, 'charge limit': 1500 } });
    if (!set.ok) throw new Error(problemText(set.problems));
    const { audit, bytes: made } = set.value;
    let at = 0;
    for (const run of audit) {
      expect(run.offset).toBe(at);
      at += run.length;
      const of = { patient, donor, copy: undefined, computed: undefined, set: undefined }[run.from];
      if (of) expect(made.slice(run.offset, at)).toEqual(of.slice(run.offset, at));
    }
    expect(at).toBe(family.sizeBytes);
    expect(audit.filter((run) => run.from === 'set').map((run) => run.region)).toEqual([
      'settings, position',
      'settings, charge limit',
    ]);
    expect([made[family.positionOffset!], made[0xc010] + 256 * made[0xc011]]).toEqual([2, 1500]);
    expect(judgeImage(family, made).sound).toBe(true);
  });
});

describe('what is proposed', () => {
  const made = (sources: Sources, decided: Decided = {}): [Uint8Array, ReturnType<typeof proposeTransplant>] => {
    const proposed = proposeTransplant(family, sources, decided);
    const merged = mergeImages(family, sources, proposed.plan);
    if (!merged.ok) throw new Error(problemText(merged.problems));
    return [merged.value.bytes, proposed];
  };

  test('the patient’s own second copy mends its damaged code, without any donor', () => {
    const [bytes, { plan: mended, advice }] = made({ patient });
    expect([mended.take.code, mended.take['second code']]).toEqual(['copy', 'patient']);
    expect(advice).toBe('The patient’s own copy mends header, code');
    const sound = demoImage(family, { code: 4, unit: 31, position: 1 });
    expect(Buffer.compare(Buffer.from(bytes), Buffer.from(sound))).toBe(0);
  });

  test('with both copies damaged the donor’s code, the patient’s own rest', () => {
    const both = Uint8Array.from(patient);
    both[0x7000] ^= 4;
    const [bytes, { why }] = made({ patient: both, donor });
    expect(why.code).toBe('the patient’s code check does not hold');
    expect(Buffer.compare(Buffer.from(bytes), Buffer.from(demoImage(family, { code: 4, unit: 31, position: 1 })))).toBe(
      0,
    );
    expect(proposeTransplant(family, { patient: both }).advice).toMatch(/a donor or a known-good image is needed/);
    const words = mergeImages(family, { patient: both }, proposeTransplant(family, { patient: both }).plan);
    expect(words.ok ? '' : problemText(words.problems)).toMatch(/patient’s image whose code check/);
  });

  test('damaged settings come from a donor of another position, with the slot’s position set', () => {
    const unsettled = Uint8Array.from(patient);
    unsettled[0xc120] ^= 1;
    const side = demoImage(family, { code: 4, unit: 18, position: 2 });
    const [bytes, { plan: moved }] = made({ patient: unsettled, donor: side }, { position: 1 });
    expect(moved.set).toEqual({ position: 1 });
    expect(bytes[family.positionOffset!]).toBe(1);
    expect(positionConflict(family, unsettled, bytes, 1)).toBeUndefined();
    expect(positionConflict(family, unsettled, side, 1)).toMatch(
      /^Expected position 1, which this slot has on the board/,
    );
  });

  test('a pair that moves brings identity and settings, by its named reason; schools differ on a sound image', () => {
    const [bytes, { plan: pair }] = made({ patient, donor }, { pairMoves: true });
    expect(pair.reason).toBe('pairMoves');
    expect(bytes.slice(0xd000, 0xd041)).toEqual(donor.slice(0xd000, 0xd041));
    const advice = (school: 'always' | 'never'): string =>
      proposeTransplant(family, { patient: donor }, { school }).advice;
    expect([advice('always'), advice('never')]).toEqual([
      'The image holds; this bench’s school rewrites it all the same',
      'The image holds: it stays, and fewer chips are heated',
    ]);
    expect(proposeTransplant(family, { patient }, { school: 'never' }).advice).toMatch(/school never rewrites/);
    expect(proposeTransplant(family, { patient: donor }, { position: 2 }).advice).toMatch(
      /says position 1; this slot is 2/,
    );
  });

  test('a damaged identity is never taken from another unit by itself', () => {
    const lost = Uint8Array.from(patient);
    lost[0xd003] ^= 8;
    const proposed = proposeTransplant(family, { patient: lost, donor });
    expect([proposed.plan.take['unit identity'], proposed.plan.reason]).toEqual(['patient', undefined]);
    expect(proposed.why['unit identity']).toMatch(/look for an earlier read/);
  });
});

test('the overview puts differences where they are and tells erased, text, zero and dense stretches apart', () => {
  const aligned = alignImages(patient, donor);
  const strip = overviewOf(donor, 64, { first: patient, aligned });
  const at = (offset: number): number => Math.floor((offset / family.sizeBytes) * 64);
  expect(strip[at(10100)].differs).toBeGreaterThan(0);
  expect(strip[at(0xf800)]).toEqual({ differs: 0, texture: 'erased' });
  expect(strip[at(1100)]).toEqual({ differs: 0, texture: 'code' });
  const random = seededRandom(71);
  const parts = new Uint8Array(4096);
  parts.set(
    Uint8Array.from({ length: 1024 }, () => 256 * random()),
    1024,
  );
  parts.set(ascii('position of the port; '.repeat(60)).slice(0, 1024), 2048);
  parts[3500] = 9;
  expect(overviewOf(parts, 4).map((s) => s.texture)).toEqual(['zero', 'dense', 'text', 'plain']);
});

test('a region map that overlaps or runs past the image is refused by name', () => {
  const raw = JSON.parse(JSON.stringify(family));
  raw.regions[1].length = 40000;
  const parsed = parseImageFamily(raw);
  expect(parsed.ok ? '' : problemText(parsed.problems)).toMatch(/code: It overlaps code check/);
});

test.each([
  [
    'the same name twice',
    (raw: ImageFamily) => void (raw.regions[1].name = 'header'),
    /header: Expected a name of its own/,
  ],
  ['a copy of nothing', (raw: ImageFamily) => void (raw.regions[4].copyOf = 'footer'), /second code: .* got footer/],
  [
    'a copy of another length',
    (raw: ImageFamily) => void (raw.regions[4].copyOf = 'header'),
    /got header of 256 bytes/,
  ],
  [
    'a field in a checksum',
    (raw: ImageFamily) => void (raw.fields![0].offset = 0x5ffc),
    /charge limit: Expected a field inside/,
  ],
])('a map with %s is refused by name', (_, change, words) => {
  const raw = JSON.parse(JSON.stringify(family)) as ImageFamily;
  change(raw);
  const parsed = parseImageFamily(raw);
  expect(parsed.ok ? '' : problemText(parsed.problems)).toMatch(words);
});

test('what its own checksum refuses is not taken over under a new one: damage would be hidden, not mended', () => {
  const words = (a: Uint8Array, b: Uint8Array, take: Record<string, Source>): string => {
    const merged = mergeImages(family, { patient: a, donor: b }, { ...plan, take: { ...plan.take, ...take } });
    return merged.ok ? '' : problemText(merged.problems);
  };
  // The patient's code is damaged: it serves neither as its own donor nor as the source of its code.
  expect(words(patient, patient, { code: 'donor' })).toMatch(/^Expected a donor whose code check holds/);
  expect(words(patient, donor, { code: 'patient' })).toMatch(/patient’s image whose code check/);
  expect(words(patient, donor, { code: 'donor' })).toBe('');
  const unsettled = Uint8Array.from(patient);
  unsettled[family.positionOffset! + 3] ^= 2;
  expect(words(unsettled, donor, {})).toMatch(/patient’s image whose settings check/);
  const settings = { settings: 'donor', 'settings, main': 'donor', 'settings, side': 'donor' } as const;
  expect(words(unsettled, donor, settings)).toBe('');
  const twice = Uint8Array.from(patient);
  twice[0x7000] ^= 1;
  expect(words(twice, donor, { code: 'copy' })).toBe(
    'Expected a sound copy of header in the patient’s image; got none whose checksum holds.',
  );
});

test('a new image of another position than the slot’s own settings say is caught, unless those cannot be trusted', () => {
  const elsewhere = demoImage(family, { code: 4, unit: 12, position: 2 });
  const merged = (settings: Source): Uint8Array => {
    const made = mergeImages(family, { patient, donor: elsewhere }, { ...plan, take: { ...plan.take, settings } });
    if (!made.ok) throw new Error(problemText(made.problems));
    return made.value.bytes;
  };
  expect(positionConflict(family, patient, merged('donor'))).toBe(
    'Expected position 1, which the settings of this slot carry; the new image says 2. Take the settings from the patient.',
  );
  expect(positionConflict(family, patient, merged('patient'))).toBeUndefined();
  const untrusted = Uint8Array.from(patient);
  untrusted[family.positionOffset! + 1] ^= 1;
  expect(positionConflict(family, untrusted, merged('donor'))).toBeUndefined();
  expect(positionConflict(family, untrusted, merged('donor'), 1)).toMatch(/which this slot has on the board/);
});

describe('checksums of other kinds in a family', () => {
  const kinds = parseImageFamily({
    ...{ format: 'unisolda-image-family/1', id: 'kinds', name: 'Kinds', sizeBytes: 4096, magicHex: '4b31' },
    regions: [
      { name: 'code', offset: 0, length: 2048, meaning: 'code' },
      { name: 'settings', offset: 2048, length: 1024, meaning: 'settings' },
      { name: 'identity', offset: 3072, length: 512, meaning: 'identity' },
      {
        name: 'code check',
        offset: 4000,
        length: 4,
        meaning: 'checksum',
        covers: { offset: 0, length: 2048 },
        bigEndian: true,
      },
      {
        name: 'settings check',
        offset: 4004,
        length: 2,
        meaning: 'checksum',
        covers: { offset: 2048, length: 1024 },
        algorithm: 'CRC-16/MODBUS',
      },
      {
        name: 'identity check',
        offset: 4006,
        length: 1,
        meaning: 'checksum',
        covers: { offset: 3072, length: 512 },
        algorithm: 'sum of bytes to zero, 8 bits',
      },
    ],
  });
  if (!kinds.ok) throw new Error(problemText(kinds.problems));
  const random = seededRandom(44);
  const unit = (): Uint8Array => {
    const bytes = Uint8Array.from({ length: 4096 }, () => 256 * random());
    bytes.set([0x4b, 0x31]);
    for (const { offset, length, covers, bigEndian = false, algorithm = 'CRC-32/ISO-HDLC' } of kinds.value.regions)
      if (covers) {
        const sum = checksumByName(algorithm)!.of(bytes, covers.offset, covers.offset + covers.length);
        writeField(bytes, offset, length, bigEndian, sum);
      }
    return bytes;
  };

  test('three kinds are computed in a merge, in both byte orders, and hold afterwards', () => {
    const both = { patient: unit(), donor: unit() };
    const merged = mergeImages(kinds.value, both, { ...proposeTransplant(kinds.value, both).plan });
    if (!merged.ok) throw new Error(problemText(merged.problems));
    const { bytes } = merged.value;
    expect(judgeImage(kinds.value, bytes)).toMatchObject({ sound: true, checksums: { length: 3 } });
    const code = crc32Package.buf(bytes.subarray(0, 2048)) >>> 0;
    expect(new DataView(bytes.buffer).getUint32(4000, false)).toBe(code);
    expect((bytes.subarray(3072, 3584).reduce((sum, b) => sum + b, 0) + bytes[4006]) % 256).toBe(0);
    bytes[2100] ^= 1;
    expect(judgeImage(kinds.value, bytes).troubles).toEqual([expect.stringMatching(/^settings check does not hold/)]);
  });

  test('an unknown algorithm and a field of the wrong width are refused with what was expected', () => {
    const refused = (region: object): string => {
      const regions = [{ ...kinds.value.regions[4], ...region }];
      const parsed = parseImageFamily({ ...kinds.value, regions });
      return parsed.ok ? '' : problemText(parsed.problems);
    };
    expect(refused({ algorithm: 'CRC-99' })).toContain('got CRC-99');
    expect(refused({ length: 4 })).toContain('Expected 2 bytes for CRC-16/MODBUS');
    expect(refused({ covers: undefined })).toContain('and no range');
  });
});

test('settings that differ in their position say from which to which', () => {
  const elsewhere = demoImage(family, { code: 4, unit: 12, position: 3 });
  const settings = compareImages(family, donor, elsewhere).find((d) => d.region.name === 'settings')!;
  expect(settings).toMatchObject({ differingBytes: 1, words: 'position 1 → 3' });
});
