import { demoBoard } from '../../../demo/files';
import { seededRandom } from '../math';
import { HARD, NO_PAD_TALLY, drawPadScene, inspectPads, renderPadScene, talliedPads, type Trouble } from '.';
import { gapsOf, mapPoint, sitePads } from '../site';

const { packages } = demoBoard('heronlog-4-c');
const QUIET: Trouble = { defects: 0, tiltDeg: 3, blurPx: 0.8, noise: 3, slope: 0.1, hairs: 0, glares: 0, debris: 0 };
/** Pixels to the narrowest pad. */
const pxPerMm = (name: string, px: number): number =>
  px / Math.min(...sitePads(packages[name]).map((p) => Math.min(p.wMm, p.hMm)));

test('a sample of drawn sites of every kind: lifted and bridged pads found, none falsely, uneven ones told @long', () => {
  let tally = NO_PAD_TALLY;
  for (const [name, seed] of [
    ['QFN40', 0],
    ['QFN16', 2],
    ['SON8', 3],
    ['BGA100', 4],
    ['BGA36', 29],
    ['BTB20', 7],
    ['QFN24', 9],
    ['BGA100', 20],
  ] as const) {
    const random = seededRandom(seed);
    const trouble = { ...HARD, hairs: 0, glares: seed % 3 === 0 ? 1 : 0 };
    const scene = drawPadScene(sitePads(packages[name]), pxPerMm(name, 16 + 14 * random()), random, trouble);
    tally = talliedPads(tally, scene, inspectPads(renderPadScene(scene, random), scene.pads));
  }
  expect(tally.lifted.there).toBeGreaterThan(7);
  expect(tally.bridged.there).toBeGreaterThan(6);
  expect(tally.uneven.there).toBeGreaterThan(8);
  for (const { there, found } of [tally.lifted, tally.bridged, tally.uneven]) expect(found).toBe(there);
  for (const kind of [tally.lifted, tally.bridged, tally.uneven]) expect(kind.false).toBe(0);
});

test('the pads are laid where the camera saw them, to a tenth of a pad', () => {
  const random = seededRandom(5);
  const scene = drawPadScene(sitePads(packages.QFN24), pxPerMm('QFN24', 20), random, QUIET);
  const seen = inspectPads(renderPadScene(scene, random), scene.pads)!;
  for (const pad of scene.pads) {
    const [is, told] = [mapPoint(scene.toPicture, pad), mapPoint(seen.toPicture, pad)];
    expect(Math.hypot(is.x - told.x, is.y - told.y)).toBeLessThan(2);
  }
  expect(seen.pads.every((p) => p.verdict === 'even' && !p.unclear)).toBe(true);
});

test('each spoiled pad is told for what it is', () => {
  const random = seededRandom(8);
  const drawn = drawPadScene(sitePads(packages.QFN16), pxPerMm('QFN16', 22), random, QUIET);
  const states = drawn.states.map((_, i) => (['lifted', 'lump', 'bare'] as const)[i] ?? 'even');
  const [gap] = gapsOf(drawn.pads).filter((g) => g.a === 8 && g.b === 9);
  const scene = { ...drawn, states, bridges: [gap] };
  const seen = inspectPads(renderPadScene(scene, random), scene.pads)!;
  expect(seen.pads.slice(0, 4).map((p) => p.verdict)).toEqual(['lifted', 'uneven', 'uneven', 'even']);
  expect(seen.bridges).toEqual([[8, 9]]);
});

test('a picture of something else is not taken for the site', () => {
  const grey = new Uint8Array(300 * 300).map((_, i) => 90 + ((i * 7) % 11));
  expect(inspectPads({ width: 300, height: 300, grey }, sitePads(packages.QFN24))).toBeUndefined();
});

test('gaps lie between pads that face each other: in a row side by side, in an array four ways', () => {
  const quad = gapsOf(sitePads(packages.QFN16));
  const pins = sitePads(packages.QFN16).map((p) => p.pin);
  expect(quad.map(({ a, b }) => `${pins[a]} ${pins[b]}`)).toEqual(expect.arrayContaining(['1 2', '2 3', '15 16']));
  expect(quad.some(({ a, b }) => pins[a] === '4' && pins[b] === '5')).toBe(false);
  // Six by six balls: five gaps in each of six rows and six columns.
  expect(gapsOf(sitePads(packages.BGA36))).toHaveLength(60);
});
