import crc32Package from 'crc-32';
import { demoFamily } from '../../../demo/files';
import { demoImage } from '../../../demo/images';
import { checksumByName, writeField } from '../checksum';
import { seededRandom } from '../math';
import { problemText } from '../result';
import {
  compareImages,
  crc32,
  judgeImage,
  mergeImages,
  overviewOf,
  parseImageFamily,
  positionConflict,
  proposeRules,
  sha256Hex,
} from '.';

const family = demoFamily('heron-pd');
const patient = demoImage(family, { code: 4, unit: 31, position: 1, damagedBytes: 640 });
const donor = demoImage(family, { code: 4, unit: 12, position: 1 });
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
  expect(words['unit identity'].words).toBe('differs, as it should: it belongs to the unit');
  expect(words.settings.differingBytes).toBe(0);
  expect(words.unused.words).toBe('the same');
});

describe('merging', () => {
  const merged = mergeImages(family, patient, donor, proposeRules(family));
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

  test('refuses to copy an identity, a checksum, or from an image of another size', () => {
    const refused = (rules: Record<string, 'donor' | 'patient'>, from = donor): string => {
      const result = mergeImages(family, patient, from, { ...proposeRules(family), ...rules });
      return result.ok ? '' : problemText(result.problems);
    };
    expect(refused({ 'unit identity': 'donor' })).toMatch(/identity of one unit: it stays the patient’s/);
    expect(refused({ 'code check': 'donor' })).toMatch(/it is computed, not copied/);
    expect(refused({}, donor.subarray(1))).toBe('Expected 65536 bytes for the donor’s image; got 65535.');
  });
});

test('the overview puts differences and erased stretches where they are', () => {
  const strip = overviewOf(patient, donor, 64);
  const at = (offset: number): number => Math.floor((offset / family.sizeBytes) * 64);
  expect(strip[at(13300)].differs).toBeGreaterThan(0);
  expect(strip[at(60000)]).toEqual({ differs: 0, erased: true });
  expect(strip[0].differs).toBe(0);
});

test('a region map that overlaps or runs past the image is refused by name', () => {
  const raw = JSON.parse(JSON.stringify(family));
  raw.regions[1].length = 40000;
  const parsed = parseImageFamily(raw);
  expect(parsed.ok ? '' : problemText(parsed.problems)).toMatch(/code: It overlaps code check/);
});

test('what its own checksum refuses is not taken over under a new one: damage would be hidden, not mended', () => {
  const words = (a: Uint8Array, b: Uint8Array, rules = proposeRules(family)): string => {
    const merged = mergeImages(family, a, b, rules);
    return merged.ok ? '' : problemText(merged.problems);
  };
  // The patient's code is damaged: it serves neither as its own donor nor as the source of its code.
  expect(words(patient, patient)).toMatch(/^Expected a donor whose code check holds/);
  expect(words(patient, donor, { ...proposeRules(family), code: 'patient' })).toMatch(
    /patient’s image whose code check/,
  );
  expect(words(patient, donor)).toBe('');
  const unsettled = Uint8Array.from(patient);
  unsettled[family.positionOffset! + 3] ^= 2;
  expect(words(unsettled, donor)).toMatch(/patient’s image whose settings check/);
  expect(words(unsettled, donor, { ...proposeRules(family), settings: 'donor' })).toBe('');
});

test('a merged image of another position than the slot’s own settings say is caught, unless those cannot be trusted', () => {
  const elsewhere = demoImage(family, { code: 4, unit: 12, position: 2 });
  const rules = { ...proposeRules(family), settings: 'donor' as const };
  const wrong = mergeImages(family, patient, elsewhere, rules);
  if (!wrong.ok) throw new Error(problemText(wrong.problems));
  expect(positionConflict(family, patient, wrong.value.bytes)).toBe(
    'Expected position 1, which the settings of this slot carry; the merged image says 2. Take the settings from the patient.',
  );
  const right = mergeImages(family, patient, elsewhere, proposeRules(family));
  if (!right.ok) throw new Error(problemText(right.problems));
  expect(positionConflict(family, patient, right.value.bytes)).toBeUndefined();
  const untrusted = Uint8Array.from(patient);
  untrusted[family.positionOffset! + 1] ^= 1;
  expect(positionConflict(family, untrusted, wrong.value.bytes)).toBeUndefined();
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
    const merged = mergeImages(kinds.value, unit(), unit(), proposeRules(kinds.value));
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
