/** The rules of a new image on a family of its own: what is taken from where, what is refused, and the account of every byte. */
import { checksumByName, writeField } from '../checksum';
import { problemText } from '../result';
import {
  judgeImage,
  mergeImages,
  parseImageFamily,
  positionConflict,
  proposeTransplant,
  transplantWords,
  type Decided,
  type ImageFamily,
  type Source,
  type Sources,
  type Transplant,
} from '.';
import { guardsOf, soundCopy, usualSource } from './merge';

// Listed as a map may list them, not in the order of their bytes; between some of them are bytes of no region.
const parsed = parseImageFamily({
  format: 'unisolda-image-family/1',
  id: 'kite',
  name: 'Kite',
  sizeBytes: 256,
  magicHex: '4b31ab',
  positionOffset: 150,
  fields: [
    { name: 'mode', offset: 144, bytes: 1 },
    { name: 'limit', offset: 158, bytes: 2, bigEndian: true },
  ],
  regions: [
    { name: 'unit', offset: 168, length: 16, meaning: 'identity' },
    { name: 'unit check', offset: 184, length: 4, meaning: 'checksum', covers: { offset: 168, length: 16 } },
    { name: 'code', offset: 0, length: 64, meaning: 'code' },
    { name: 'code check', offset: 64, length: 4, meaning: 'checksum', covers: { offset: 0, length: 64 } },
    { name: 'code two', offset: 72, length: 64, meaning: 'code', copyOf: 'code' },
    { name: 'code two check', offset: 136, length: 4, meaning: 'checksum', covers: { offset: 72, length: 64 } },
    { name: 'settings', offset: 144, length: 16, meaning: 'settings' },
    { name: 'settings check', offset: 160, length: 4, meaning: 'checksum', covers: { offset: 144, length: 16 } },
    { name: 'trim', offset: 188, length: 8, meaning: 'calibration' },
    { name: 'log', offset: 196, length: 8, meaning: 'journal' },
    { name: 'filling', offset: 204, length: 20, meaning: 'padding' },
  ],
});
if (!parsed.ok) throw new Error(problemText(parsed.problems));
const kite: ImageFamily = parsed.value;
const at = (name: string) => kite.regions.find((r) => r.name === name)!;
const part = (bytes: Uint8Array, name: string): number[] => [
  ...bytes.subarray(at(name).offset, at(name).offset + at(name).length),
];

/** A sound image, all bytes of which but the code's tell whose it is. */
function unit(mark: number, position: number): Uint8Array {
  const bytes = new Uint8Array(256).fill(mark);
  for (const name of ['code', 'code two'])
    bytes.set(
      Array.from({ length: 64 }, (_, i) => (mark + i) % 251),
      at(name).offset,
    );
  for (const name of ['code', 'code two']) bytes.set([0x4b, 0x31, 0xab], at(name).offset);
  bytes[150] = position;
  return summed(bytes);
}
/** Its checksums made anew. */
function summed(bytes: Uint8Array): Uint8Array {
  const crc = checksumByName('CRC-32/ISO-HDLC')!;
  for (const { offset, length, covers } of kite.regions)
    if (covers) writeField(bytes, offset, length, false, crc.of(bytes, covers.offset, covers.offset + covers.length));
  return bytes;
}
const damaged = (bytes: Uint8Array, ...names: string[]): Uint8Array => {
  const copy = Uint8Array.from(bytes);
  for (const name of names) copy[at(name).offset + 5] ^= 1;
  return copy;
};
const patient = unit(1, 1);
const donor = unit(2, 2);

function plan(take: Record<string, Source> = {}, more: Partial<Transplant> = {}): Transplant {
  return { base: 'patient', take, set: {}, ...more };
}
const merged = (sources: Sources, of: Transplant) => {
  const result = mergeImages(kite, sources, of);
  if (!result.ok) throw new Error(problemText(result.problems));
  return result.value;
};
const refused = (sources: Sources, of: Transplant): string => {
  const result = mergeImages(kite, sources, of);
  return result.ok ? 'made' : problemText(result.problems);
};
const STAYS = { code: 'patient', 'code two': 'patient', filling: 'patient' } as const;

describe('judging the family', () => {
  test('says what an image starts with, in as many bytes as the family’s, whatever case they are written in', () => {
    const other = Uint8Array.from(patient);
    other[2] = 0xac;
    expect(judgeImage(kite, other)).toMatchObject({
      sound: false,
      checksums: [],
      troubles: ['Expected it to start with 4B31AB; got 4B31AC: another family, or a shifted read.'],
    });
    expect(judgeImage(kite, patient)).toMatchObject({ sound: true, troubles: [], position: 1 });
  });

  test('an image of another size is none of the family: no checksum is read in it', () => {
    expect(judgeImage(kite, patient.subarray(1))).toEqual({
      troubles: ['Expected 256 bytes for Kite; got 255 bytes.'],
      checksums: [],
      sound: false,
    });
  });

  test('a family without positions tells none, and a sum is told in the digits of its field', () => {
    const { positionOffset: _, ...still } = kite;
    expect(judgeImage(still, patient)).toHaveProperty('position', undefined);
    const small = damaged(patient, 'unit');
    writeField(small, 184, 4, false, 0x1f);
    expect(judgeImage(kite, small).troubles[0]).toMatch(/^unit check does not hold: stored 0000001F, computed/);
  });
});

test('where regions come from as long as nothing else is asked for', () => {
  expect(Object.fromEntries(kite.regions.map((r) => [r.meaning, usualSource(r)]))).toEqual({
    ...{ identity: 'patient', settings: 'patient', calibration: 'patient', journal: 'patient' },
    ...{ code: 'donor', padding: 'donor', checksum: 'computed' },
  });
  const { bytes } = merged({ patient, donor }, plan());
  for (const name of ['unit', 'settings', 'trim', 'log']) expect(part(bytes, name)).toEqual(part(patient, name));
  for (const name of ['code', 'code two', 'filling']) expect(part(bytes, name)).toEqual(part(donor, name));
});

describe('copies', () => {
  const two = at('code two');
  test('a region’s copies are those that repeat it and the one it repeats; a sound one stands in', () => {
    expect(soundCopy(kite, at('code'), patient)).toBe(two);
    expect(soundCopy(kite, two, patient)).toBe(at('code'));
    expect(soundCopy(kite, at('code'), damaged(patient, 'code two'))).toBeUndefined();
    expect(soundCopy(kite, at('settings'), patient)).toBeUndefined();
    const three = {
      ...kite,
      regions: [...kite.regions, { name: 'code three', offset: 0, length: 64, meaning: 'code', copyOf: 'code' }],
    } as ImageFamily;
    expect(soundCopy(three, three.regions[11], damaged(patient, 'code'))).toBe(two);
  });

  test('a copy counts as sound only where every checksum over it holds', () => {
    const twice = {
      ...kite,
      regions: [
        ...kite.regions,
        { name: 'all check', offset: 240, length: 4, meaning: 'checksum', covers: { offset: 72, length: 64 } },
      ],
    } as ImageFamily;
    expect(guardsOf(twice, patient, two).map((g) => g.holds)).toEqual([true, false]);
    expect(soundCopy(twice, at('code'), patient)).toBeUndefined();
  });

  test('only checksums over a part guard it: not those that end where it begins, or begin where it ends', () => {
    expect(guardsOf(kite, patient, at('code')).map((g) => g.region)).toEqual(['code check']);
    expect(guardsOf(kite, patient, { offset: 64, length: 8 })).toEqual([]);
    expect(guardsOf(kite, patient, { offset: 63, length: 10 }).map((g) => g.region)).toEqual([
      'code check',
      'code two check',
    ]);
  });

  test('the patient’s damaged code is mended from its other copy without a donor', () => {
    const broken = damaged(patient, 'code');
    const { bytes, audit } = merged({ patient: broken }, plan({ ...STAYS, code: 'copy' }));
    expect([...bytes]).toEqual([...patient]);
    expect(audit.find((run) => run.region === 'code')).toEqual({ offset: 0, length: 64, from: 'copy', region: 'code' });
  });
});

describe('refused', () => {
  test.each<[string, Sources, Transplant, string]>([
    [
      'a donor’s part without a donor',
      { patient },
      plan(),
      'Expected a donor’s image, as parts are taken from it; got none.',
    ],
    [
      'a donor’s base without a donor',
      { patient },
      plan(STAYS, { base: 'donor' }),
      'Expected a donor’s image, as parts are taken from it; got none.',
    ],
    [
      'a patient of another size',
      { patient: patient.subarray(1), donor },
      plan(),
      'Expected 256 bytes for the patient’s image; got 255.',
    ],
    [
      'a donor of another size',
      { patient, donor: new Uint8Array(257) },
      plan(),
      'Expected 256 bytes for the donor’s image; got 257.',
    ],
    [
      'a copy where none is sound',
      { patient: damaged(patient, 'code two') },
      plan({ ...STAYS, code: 'copy' }),
      'Expected a sound copy of code in the patient’s image; got none whose checksum holds.',
    ],
    [
      'another unit’s identity',
      { patient, donor },
      plan({ unit: 'donor' }),
      'unit is the identity of one unit: it stays the patient’s, unless a reason is named (the donor’s chip moves with its memory, and the donor is retired; the donor’s image is an earlier read of this same unit).',
    ],
    [
      'a checksum that is copied',
      { patient, donor },
      plan({ 'code check': 'donor' }),
      'code check is a checksum: it is computed, not copied.',
    ],
    [
      'a part that is computed',
      { patient, donor },
      plan({ trim: 'computed' }),
      'Expected a source for trim; only checksums are computed.',
    ],
    [
      'damage of the patient under a new checksum',
      { patient: damaged(patient, 'settings'), donor },
      plan(),
      'Expected a patient’s image whose settings check holds, as parts under it are taken from there; it does not hold. A checksum made anew would only hide the damage.',
    ],
    [
      'damage of the donor under a new checksum',
      { patient, donor: damaged(donor, 'code two') },
      plan(),
      'Expected a donor whose code two check holds, as parts under it are taken from there; it does not hold. A checksum made anew would only hide the damage.',
    ],
    [
      'a field that is none',
      { patient, donor },
      plan({}, { set: { colour: 1 } }),
      'Expected a field of Kite (position, mode, limit); got colour.',
    ],
    ...[-1, 256, 0.5].map((value): [string, Sources, Transplant, string] => [
      `a byte of ${value}`,
      { patient, donor },
      plan({}, { set: { mode: value } }),
      `Expected a whole number from 0 to 255 for mode; got ${value}.`,
    ]),
    [
      'two bytes of 65,536',
      { patient, donor },
      plan({}, { set: { limit: 65_536 } }),
      'Expected a whole number from 0 to 65535 for limit; got 65536.',
    ],
  ])('%s', (_, sources, of, sentence) => expect(refused(sources, of)).toBe(sentence));

  test.each<[string, Sources, Transplant]>([
    ['no donor is asked for where nothing is taken from one', { patient }, plan(STAYS)],
    ['an identity by its named reason', { patient, donor }, plan({ unit: 'donor' }, { reason: 'sameUnit' })],
    [
      'damage that is replaced',
      { patient: damaged(patient, 'code', 'code two'), donor: damaged(donor, 'settings', 'unit') },
      plan(),
    ],
    ['the least and the most that a field holds', { patient, donor }, plan({}, { set: { mode: 0, position: 255 } })],
    ['the most of two bytes', { patient, donor }, plan({}, { set: { limit: 65_535 } })],
  ])('not: %s', (_, sources, of) => expect(refused(sources, of)).toBe('made'));

  test('checksums that cover each other in a circle', () => {
    const circle = {
      ...kite,
      regions: [
        { name: 'body', offset: 128, length: 64, meaning: 'code' },
        { name: 'first', offset: 64, length: 4, meaning: 'checksum', covers: { offset: 0, length: 72 } },
        { name: 'second', offset: 68, length: 4, meaning: 'checksum', covers: { offset: 0, length: 68 } },
      ],
    } as ImageFamily;
    const blank = new Uint8Array(256);
    const tried = mergeImages(circle, { patient: blank }, plan({ body: 'patient' }));
    expect(tried.ok ? '' : problemText(tried.problems)).toBe(
      'The checksums of this family cover each other in a circle and cannot be computed in their listed order.',
    );
  });
});

describe('the account of every byte', () => {
  test('runs in the order of the bytes, with what lies outside all regions and what was set', () => {
    const { audit, bytes } = merged({ patient, donor }, plan({}, { set: { limit: 0x1234, mode: 9, position: 3 } }));
    expect(audit.map((run) => [run.offset, run.length, run.from, run.region])).toEqual([
      [0, 64, 'donor', 'code'],
      [64, 4, 'computed', 'code check'],
      [68, 4, 'patient', 'outside all regions'],
      [72, 64, 'donor', 'code two'],
      [136, 4, 'computed', 'code two check'],
      [140, 4, 'patient', 'outside all regions'],
      [144, 1, 'set', 'settings, mode'],
      [145, 5, 'patient', 'settings'],
      [150, 1, 'set', 'settings, position'],
      [151, 7, 'patient', 'settings'],
      [158, 2, 'set', 'settings, limit'],
      [160, 4, 'computed', 'settings check'],
      [164, 4, 'patient', 'outside all regions'],
      [168, 16, 'patient', 'unit'],
      [184, 4, 'computed', 'unit check'],
      [188, 8, 'patient', 'trim'],
      [196, 8, 'patient', 'log'],
      [204, 20, 'donor', 'filling'],
      [224, 32, 'patient', 'outside all regions'],
    ]);
    // The highest byte first where the map says so.
    expect([bytes[144], bytes[150], bytes[158], bytes[159]]).toEqual([9, 3, 0x12, 0x34]);
    expect(judgeImage(kite, bytes).sound).toBe(true);
  });

  test('the base of another image is what stands outside all regions; the map itself stays as it was', () => {
    const order = kite.regions.map((r) => r.name);
    const { audit, bytes } = merged({ patient, donor }, plan({}, { base: 'donor' }));
    expect(audit.filter((run) => run.region === 'outside all regions').map((run) => run.from)).toEqual(
      Array(4).fill('donor'),
    );
    expect([bytes[68], bytes[255]]).toEqual([2, 2]);
    expect(kite.regions.map((r) => r.name)).toEqual(order);
  });
});

test('a transplant is told in figures: from whom, what is set, and why an identity moves', () => {
  expect(transplantWords(kite, plan({ ...STAYS, code: 'copy' }, { set: { limit: 500 } }))).toBe(
    'from the patient’s own copy: code; the patient’s: unit, code two, settings, trim, log, filling; set: limit 500 (01F4); computed: unit check, code check, code two check, settings check',
  );
  expect(transplantWords(kite, plan({ unit: 'donor' }, { reason: 'pairMoves' }))).toBe(
    'from the donor: unit, code, code two, filling; the patient’s: settings, trim, log; computed: unit check, code check, code two check, settings check; identity from the donor, as the donor’s chip moves with its memory, and the donor is retired',
  );
  const bare = { ...kite, regions: kite.regions.filter((r) => r.name === 'trim') };
  expect(transplantWords(bare, plan())).toBe('the patient’s: trim');
});

describe('the position of the slot', () => {
  const elsewhere = Uint8Array.from(patient);
  elsewhere[150] = 7;
  test.each<[string, ImageFamily, Uint8Array, Uint8Array, number | undefined, string | undefined]>([
    [
      'the board’s own counts',
      kite,
      patient,
      patient,
      4,
      'Expected position 4, which this slot has on the board; the new image says 1. Take the settings from the patient, or set the position.',
    ],
    ['and where it is met all is well', kite, patient, elsewhere, 7, undefined],
    [
      'the patient’s sound settings count where the board says nothing',
      kite,
      patient,
      elsewhere,
      undefined,
      'Expected position 1, which the settings of this slot carry; the new image says 7. Take the settings from the patient.',
    ],
    ['the same as before is none', kite, patient, patient, undefined, undefined],
    ['damaged settings tell nothing', kite, damaged(patient, 'settings'), elsewhere, undefined, undefined],
    [
      'settings that nothing guards tell nothing',
      { ...kite, regions: kite.regions.filter((r) => r.name !== 'settings check') },
      patient,
      elsewhere,
      undefined,
      undefined,
    ],
    ['a family without positions', { ...kite, positionOffset: undefined }, patient, elsewhere, 3, undefined],
  ])('%s', (_, family, own, made, slot, sentence) => {
    expect(positionConflict(family, own, made, slot)).toBe(sentence);
  });
});

describe('what is proposed', () => {
  const propose = (sources: Sources, decided: Decided = {}) => proposeTransplant(kite, sources, decided);

  test('of a sound patient everything stays, each with its reason', () => {
    const { plan: stays, why, advice } = propose({ patient, donor });
    expect(stays).toEqual({
      base: 'patient',
      set: {},
      take: Object.fromEntries(kite.regions.map((r) => [r.name, r.meaning === 'checksum' ? 'computed' : 'patient'])),
    });
    expect([why.code, why.filling, why.unit, why['unit check']]).toEqual([
      'it holds: it stays',
      'it holds: it stays',
      'belongs to the unit',
      'follows from the rest',
    ]);
    expect(advice).toBe('The image holds: it stays, and fewer chips are heated');
  });

  test.each<[string, Sources, Decided, string, Record<string, Source>]>([
    [
      'code from its own copy',
      { patient: damaged(patient, 'code') },
      {},
      'The patient’s own copy mends code',
      { code: 'copy', 'code two': 'patient' },
    ],
    [
      'both copies from the donor',
      { patient: damaged(patient, 'code', 'code two'), donor },
      {},
      'The donor mends code, code two',
      { code: 'donor', 'code two': 'donor' },
    ],
    [
      'damaged without a donor',
      { patient: damaged(patient, 'settings') },
      {},
      'Damaged: a donor or a known-good image is needed',
      { settings: 'patient' },
    ],
    [
      'a donor that is damaged there too',
      { patient: damaged(patient, 'settings'), donor: damaged(donor, 'settings') },
      {},
      'Expected a donor whose settings check holds, as parts under it are taken from there; it does not hold. A checksum made anew would only hide the damage.',
      { settings: 'donor' },
    ],
    [
      'the school that never rewrites',
      { patient: damaged(patient, 'code', 'settings'), donor },
      { school: 'never' },
      'code check and settings check does not hold, and this bench’s school never rewrites: decide on the chip anew',
      { settings: 'donor' },
    ],
    [
      'a slot of another position',
      { patient, donor },
      { position: 5 },
      'The patient’s image is sound but says position 1; this slot is 5',
      { settings: 'patient' },
    ],
    [
      'the pair that moves',
      { patient, donor },
      { pairMoves: true },
      'The pair moves: settings and identity come with the donor’s chip',
      { unit: 'donor', settings: 'donor', trim: 'donor', log: 'donor', code: 'patient' },
    ],
    [
      'the pair that moves, without its image',
      { patient },
      { pairMoves: true },
      'The pair moves: settings and identity come with the donor’s chip',
      { unit: 'patient', settings: 'patient' },
    ],
  ])('%s', (_, sources, decided, advice, take) => {
    const proposed = propose(sources, decided);
    expect(proposed.advice).toBe(advice);
    expect(proposed.plan.take).toMatchObject(take);
  });

  test('reasons name the checksum that does not hold, and what is no cure', () => {
    expect(propose({ patient: damaged(patient, 'code') }).why.code).toBe('its code two holds');
    expect(propose({ patient: damaged(patient, 'settings'), donor }).why.settings).toBe(
      'the patient’s settings check does not hold',
    );
    expect(propose({ patient: damaged(patient, 'settings') }).why.settings).toBe(
      'settings check does not hold: a donor is needed',
    );
    expect(propose({ patient: damaged(patient, 'unit'), donor }).why.unit).toBe(
      'unit check does not hold, and the identity of another unit is no cure: look for an earlier read',
    );
    expect(propose({ patient, donor }, { pairMoves: true }).why.trim).toBe('the pair moves with the donor’s chip');
  });

  test('the position is set where the settings come from elsewhere, or where the slot is another', () => {
    const unsettled = damaged(patient, 'settings');
    expect(propose({ patient: unsettled, donor }).plan.set).toEqual({ position: 1 });
    expect(propose({ patient: unsettled, donor }, { position: 2 }).plan.set).toEqual({});
    expect(propose({ patient, donor }, { position: 5 }).plan.set).toEqual({ position: 5 });
    expect(propose({ patient, donor }, { position: 1 }).plan.set).toEqual({});
    const { positionOffset: _, fields: __, ...still } = kite;
    expect(proposeTransplant(still, { patient, donor }, { position: 5 })).toMatchObject({
      plan: { set: {} },
      advice: 'The image holds: it stays, and fewer chips are heated',
    });
  });

  test('the position lies in the first or the last byte of its region as well as between', () => {
    for (const positionOffset of [144, 159]) {
      const family = { ...kite, fields: [], positionOffset };
      const moved = Uint8Array.from(patient);
      moved[positionOffset] = 5;
      expect(proposeTransplant(family, { patient: summed(moved) }, { position: 6 }).plan.set).toEqual({ position: 6 });
    }
  });

  test('schools differ on a sound image', () => {
    expect(propose({ patient }, { school: 'always' }).advice).toBe(
      'The image holds; this bench’s school rewrites it all the same',
    );
    expect(propose({ patient }, { school: 'never' }).advice).toBe(
      'The image holds: it stays, and fewer chips are heated',
    );
  });
});
