import { demoBoard } from '../../../demo/files';
import { measurementOfReference, powerNeedOf } from '../diagnose';
import { predictionInterval, statsOf, type ReferenceReading } from '../reference';
import { FIRST_ANSWERS, carryOf, comparedWithGood, firstBoard, goodBoardsOf, parseGoodFigure } from '.';

const sketch = firstBoard('tern-1', { ...FIRST_ANSWERS, device: 'Tern 1' });
if (!sketch.ok) throw new Error('the first answers begin no board');
const heron = demoBoard('heronlog-4-c');

describe.each([
  ['a sketch', sketch.value],
  ['a whole board', heron],
])('the walk over %s', (_, board) => {
  const { walk } = carryOf(board);

  test('asks for points whose readings are kept of good boards, each once, the most telling first in each half', () => {
    expect(walk.length).toBeGreaterThan(4);
    expect(walk.length).toBeLessThanOrEqual(30);
    expect(new Set(walk.map((p) => p.id)).size).toBe(walk.length);
    for (const { id, measurement } of walk) expect(measurementOfReference(id)).toEqual(measurement);
    for (const half of [walk.filter((p) => !p.isPowered), walk.filter((p) => p.isPowered)])
      expect(half.map((p) => p.bits)).toEqual(half.map((p) => p.bits).sort((a, b) => b - a));
  });

  test('puts no power on before the last point without is read', () => {
    const firstPowered = walk.findIndex((p) => p.isPowered);
    expect(firstPowered).not.toBe(0);
    expect(walk.slice(firstPowered < 0 ? walk.length : firstPowered).every((p) => p.isPowered)).toBe(true);
    for (const p of walk) expect(p.isPowered).toBe(powerNeedOf(p.measurement).kind !== 'none');
  });
});

const ohm = carryOf(heron).walk.find((p) => p.measurement.kind === 'groundResistance')!;
const volt = carryOf(heron).walk.find((p) => p.measurement.kind === 'railVoltage');
const good = (source: string, value: number, point = ohm.id): ReferenceReading => ({
  ...{ boardId: heron.id, point, value, source },
});

test.each([
  ['340', 340],
  ['1k2', 1200],
  ['340 ohm', 340],
  ['2.2 kΩ', 2200],
  ['0', 0],
])('%s is read as a resistance', (text, value) => {
  expect(parseGoodFigure(ohm, text)).toEqual({ ok: true, value });
});

test('a voltage may carry its unit; what is no figure, below zero or open is refused with a sentence', () => {
  if (volt) expect(parseGoodFigure(volt, '3.31 V')).toEqual({ ok: true, value: 3.31 });
  for (const [text, sentence] of [
    ['ol', /^An open line has no figure/],
    ['-3', /^Expected a figure from 0 on; got -3\.$/],
    ['about right', /^Expected /],
  ] as const)
    expect(parseGoodFigure(ohm, text)).toMatchObject({
      ok: false,
      problems: [{ message: expect.stringMatching(sentence) }],
    });
});

test('a figure is held against what other good boards read: none, one, and an interval by Student’s t of several', () => {
  expect(comparedWithGood(ohm, 340, []).label).toMatch(/, the first of this point$/);
  expect(comparedWithGood(ohm, 340, [good('good board 1', 350)])).toMatchObject({ isOdd: false });
  const three = [good('good board 1', 340), good('good board 2', 350), good('good board 3', 345)];
  const { low, high } = predictionInterval(statsOf([340, 350, 345]))!;
  for (const [figure, isOdd] of [
    [low + 0.1, false],
    [high - 0.1, false],
    [low - 0.1, true],
    [high + 0.1, true],
  ] as const)
    expect(comparedWithGood(ohm, figure, [...three, good('good board 1', 9, 'ohm:OTHER')]).isOdd).toBe(isOdd);
  expect(comparedWithGood(ohm, 900, three).label).toMatch(/but 3 good boards read .* to .*: is this one good/);
});

test('good boards are counted on; other sources are none', () => {
  expect(goodBoardsOf([])).toEqual({ walked: [], next: 'good board 1' });
  const readings = ['good board 2', 'job 26', 'good board 10', 'good board 2'].map((s) => good(s, 1));
  expect(goodBoardsOf(readings)).toEqual({ walked: ['good board 2', 'good board 10'], next: 'good board 11' });
});
