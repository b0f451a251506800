import { demoFamily } from '../../../demo/files';
import { demoImage } from '../../../demo/images';
import { judgeImage, proposeMap } from '@/core/image';
import { problemText } from '@/core/result';
import { draftFromProposal, draftOf, emptyDraft, familyOfDraft, withRegion } from './map-draft';

const families = ['heron-pd', 'marsh-pd3'].map(demoFamily);

test.each(families.map((f) => [f.id, f] as const))('the map of %s is the same after it was typed', (_, family) => {
  const typed = familyOfDraft(draftOf(family));
  expect(typed).toEqual({ ok: true, value: family });
});

test('what is no figure, and a range that is left open, are named with their region', () => {
  const draft = draftOf(families[0]);
  const words = (k: number, more: object): string => {
    const typed = familyOfDraft({ ...draft, regions: draft.regions.map((r, i) => (i === k ? { ...r, ...more } : r)) });
    return typed.ok ? '' : problemText(typed.problems);
  };
  expect(words(1, { offset: '0x1g' })).toBe('code: Expected a hexadecimal figure; got 0x1g.');
  expect(words(2, { coversFrom: '' })).toBe('code check: Expected a hexadecimal figure; got nothing.');
  expect(words(2, { algorithm: 'CRC-16/ARC' })).toMatch(/code check: Expected 2 bytes for CRC-16\/ARC/);
});

test('a chosen part becomes a region in its place', () => {
  const draft = withRegion(withRegion(emptyDraft(new Uint8Array(4096).fill(7)), 512, 600), 0, 16);
  const typed = familyOfDraft(draft);
  expect(typed.ok && typed.value.regions.map((r) => [r.offset, r.length])).toEqual([
    [0, 16],
    [512, 88],
  ]);
  expect(draft.magicHex).toBe('07070707');
});

test('a proposal with the checksums that were found is a map that holds on its image', () => {
  const [family] = families;
  const image = demoImage(family, { code: 4, unit: 12, position: 1 });
  const proposed = proposeMap(image);
  const plain = familyOfDraft(draftFromProposal(emptyDraft(image), proposed));
  expect(plain.ok && plain.value.regions.length).toBe(proposed.length);
  const field = { offset: 0x5ffc, bytes: 4, bigEndian: false, fill: 'outside' as const };
  const found = [{ algorithm: 'CRC-32/ISO-HDLC', from: 0, to: 0x5ffc, field, expectedFalsePositives: 1e-9 }];
  const typed = familyOfDraft(draftFromProposal(emptyDraft(image), proposeMap(image, found)));
  if (!typed.ok) throw new Error(problemText(typed.problems));
  expect(judgeImage(typed.value, image)).toMatchObject({ sound: true, checksums: [{ holds: true }] });
  expect(typed.value.regions.some((r) => r.copyOf !== undefined)).toBe(true);
});
