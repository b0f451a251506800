import { demoBoard } from '../../../demo/files';
import { inspectBalls, inspectPads } from '../../core/inspect';
import { fullPattern, sitePads } from '../../core/site';
import { SPECIMENS, coloured, takePadPicture, takePicture } from '.';

const pattern = fullPattern(8, 8);
const SIZES = { ball: 0.58, pad: 0.45 };
const look = (specimen: (typeof SPECIMENS)[number], seed: number) =>
  inspectBalls(takePicture(specimen, pattern, SIZES, seed), pattern, { pitchMm: 0.5, ballMm: 0.29 })!;

test('a sound part has nothing to be told of; the same seed gives the same picture', () => {
  const { balls, bridges, solderDebris } = look('sound', 3);
  expect(balls.every((b) => b.verdict === 'good' && !b.unclear)).toBe(true);
  expect([bridges, solderDebris]).toEqual([[], []]);
  const again = takePicture('sound', pattern, SIZES, 3);
  expect(takePicture('sound', pattern, SIZES, 3).grey).toEqual(again.grey);
  expect(takePicture('sound', pattern, SIZES, 4).grey).not.toEqual(again.grey);
});

test('worn parts have faults, and badly lit ones are still read @long', () => {
  const faults = [1, 2, 3].map((seed) => {
    const { balls, bridges } = look('worn', seed);
    return balls.filter((b) => b.verdict !== 'good').length + bridges.length;
  });
  expect(faults.reduce((a, b) => a + b, 0)).toBeGreaterThan(3);
  expect(look('badly lit', 2).balls).toHaveLength(64);
});

test('in colours a picture keeps its order of grey: darkest solder mask, brightest tin', () => {
  const rgba = coloured({ width: 3, height: 1, grey: Uint8Array.from([0, 128, 255]) });
  expect([...rgba.slice(0, 4)]).toEqual([16, 44, 46, 255]);
  expect([...rgba.slice(8, 12)]).toEqual([250, 246, 234, 255]);
  for (let c = 0; c < 3; c++) {
    expect(rgba[4 + c]).toBeGreaterThan(rgba[c]);
    expect(rgba[8 + c]).toBeGreaterThan(rgba[4 + c]);
  }
});

test('a cleaned site under it: sound ones are all even, worn ones are not, and the seed decides @long', () => {
  const pads = sitePads(demoBoard('heronlog-4-c').packages.QFN24);
  const sound = inspectPads(takePadPicture('sound', pads, 5), pads)!;
  expect(sound.pads.every((p) => p.verdict === 'even')).toBe(true);
  expect(sound.bridges).toEqual([]);
  const troubles = [1, 2].map((seed) => {
    const seen = inspectPads(takePadPicture('worn', pads, seed), pads)!;
    return seen.pads.filter((p) => p.verdict !== 'even').length + seen.bridges.length;
  });
  expect(troubles.reduce((a, b) => a + b, 0)).toBeGreaterThan(3);
  expect(takePadPicture('worn', pads, 1).grey).not.toEqual(takePadPicture('worn', pads, 2).grey);
});
