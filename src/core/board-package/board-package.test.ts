import { strToU8, unzipSync, zipSync } from 'fflate';
import fc from 'fast-check';
import { demoBoard } from '../../../demo/files';
import type { Board } from '../board';
import { encode, Image } from 'image-js';
import { boardDifferences, mergeBoard, openPackage, packBoard, type BoardPackage } from '.';

const heron = demoBoard('heronlog-4-c');
/** A capacitor that nothing else of the file names. */
const spare = heron.parts.findLast((p) => p.kind === 'capacitor')!.ref;
const jpeg = encode(new Image(12, 8, { data: new Uint8Array(288).fill(90), colorModel: 'RGB' }), { format: 'jpg' });
const whole: BoardPackage = {
  board: heron,
  photos: [
    { side: 'front', place: { widthMm: 60, heightMm: 42, pxPerMm: 10, doubtMm: 0.05 }, jpeg: new Uint8Array(jpeg) },
  ],
  references: [{ boardId: heron.id, point: 'ohm:VIN', value: 41_000, source: 'good board 1' }],
};
const problem = (bytes: Uint8Array): string => {
  const opened = openPackage(bytes);
  return opened.ok ? 'opened' : opened.problems[0].message;
};
/** A package with something done to its files before it is closed again; the manifest stays. */
const tampered = (change: (files: Record<string, Uint8Array>) => void): Uint8Array => {
  const files = unzipSync(packBoard(whole));
  change(files);
  return zipSync(files);
};

describe('a board package', () => {
  test('comes back as it went out, and the same board makes the same bytes', () => {
    const bytes = packBoard(whole);
    const opened = openPackage(bytes);
    expect(opened.ok && opened.value).toEqual(whole);
    expect(packBoard(whole)).toEqual(bytes);
  });

  test.each([
    ['no archive', new Uint8Array([1, 2, 3]), 'Expected a board package (zip)'],
    ['an archive of something else', zipSync({ 'a.txt': strToU8('x') }), 'this archive has none'],
    ['a changed file', tampered((f) => (f['board.json'] = strToU8('{}'))), 'board.json is not as the manifest has it'],
    [
      'a missing file',
      tampered((f) => delete f['references.csv']),
      'The manifest names references.csv; it is not in the archive.',
    ],
    ['a file beside the manifest', tampered((f) => (f['more.txt'] = strToU8('x'))), 'got more.txt as well'],
    ['a manifest that is none', tampered((f) => (f['manifest.json'] = strToU8('no'))), 'it is no JSON'],
    [
      'a manifest of another version',
      tampered((f) => (f['manifest.json'] = strToU8('{"format":"other/1"}'))),
      'The manifest cannot be read',
    ],
    [
      'more than it may hold',
      zipSync({ 'manifest.json': new Uint8Array(41e6) }),
      'it holds more than a board package does',
    ],
  ])('is refused with a sentence: %s', (_words, bytes, words) => {
    expect(problem(bytes)).toContain(words);
  });
});

describe('two files of one board', () => {
  const theirs: Board = {
    ...heron,
    thicknessMm: 1,
    nets: { ...heron.nets, VIN: { ...heron.nets.VIN, diodeV: 0.5 } },
    parts: [
      ...heron.parts.filter((p) => p.ref !== spare).map((p) => (p.ref === 'U4' ? { ...p, xMm: p.xMm + 0.3 } : p)),
      { ...heron.parts.find((p) => p.ref === 'C14')!, ref: 'C99' },
    ],
  };

  test('differ line by line, in words', () => {
    const words = boardDifferences(heron, theirs).map((d) => d.summary);
    const u4 = heron.parts.find((p) => p.ref === 'U4')!;
    expect(words).toEqual([
      'thicknessMm: 0.8 → 1',
      'VIN: diodeV 0.48 → 0.5',
      `U4: xMm ${u4.xMm} → ${u4.xMm + 0.3}`,
      `${spare}: only in yours`,
      'C99: only in theirs',
    ]);
    expect(boardDifferences(heron, JSON.parse(JSON.stringify(heron)) as Board)).toEqual([]);
  });

  test('are merged by the lines that are taken: all of them make theirs, none leaves the own', () => {
    const all = boardDifferences(heron, theirs);
    const merged = mergeBoard(heron, all);
    expect(merged.ok && boardDifferences(merged.value, theirs)).toEqual([]);
    const none = mergeBoard(heron, []);
    expect(none.ok && none.value).toEqual(heron);
  });

  test('any choice of lines makes a board that differs from theirs by the other lines alone', () => {
    const all = boardDifferences(heron, theirs);
    fc.assert(
      fc.property(fc.subarray(all), (taken) => {
        const merged = mergeBoard(heron, taken);
        if (!merged.ok) throw new Error(merged.problems[0].message);
        const left = boardDifferences(merged.value, theirs).map((d) => `${d.section} ${d.name}`);
        expect(left).toEqual(all.filter((d) => !taken.includes(d)).map((d) => `${d.section} ${d.name}`));
      }),
      { seed: 9, numRuns: 32 },
    );
  });

  test('a line that rests on another one that was left out is refused with its place', () => {
    const withNet: Board = {
      ...heron,
      nets: { ...heron.nets, NEW: { role: 'signal', lowByNature: false } },
      parts: heron.parts.map((p) => (p.ref === 'C14' ? { ...p, pins: { 1: 'NEW', 2: 'GND' } } : p)),
    };
    const part = boardDifferences(heron, withNet).filter((d) => d.section === 'parts');
    const merged = mergeBoard(heron, part);
    expect(!merged.ok && merged.problems[0].message).toContain('NEW');
  });
});
