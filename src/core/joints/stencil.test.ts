import { seededRandom } from '../math';
import { centrePaste } from './centre';
import { STENCILS_MM, bestStencil, isBetter, printed, type StencilChoice } from './stencil';

test('the search over aperture, foil and passes equals trying them all', () => {
  const random = seededRandom(17);
  for (let draw = 0; draw < 60; draw++) {
    const pitchMm = 0.35 + 0.9 * random();
    const padMm = pitchMm * (0.4 + 0.15 * random());
    const wanted = {
      ...{ pitchMm, padMm, ballMm: pitchMm * (0.3 + 0.35 * random()) },
      alloy: random() < 0.5 ? ('SAC305' as const) : ('Sn63Pb37' as const),
    };
    let best: StencilChoice | undefined;
    for (const stencilMm of STENCILS_MM) {
      for (let passes = 1; passes <= 3; passes++) {
        for (let k = 1; k <= 200; k++) {
          const choice = printed(wanted, k * 0.01, stencilMm, passes);
          if (choice && (!best || isBetter(choice, best))) best = choice;
        }
      }
    }
    expect(bestStencil(wanted)).toEqual(best);
  }
});

test('every foil chosen releases (area ratio of at least 0.66, IPC-7525) and leaves a web', () => {
  const choice = bestStencil({ pitchMm: 0.5, padMm: 0.25, ballMm: 0.3, alloy: 'SAC305' })!;
  expect(choice.areaRatio).toBeGreaterThanOrEqual(0.66);
  expect(choice.apertureMm).toBeLessThanOrEqual(0.42);
  // Scatter of the ball is a third of that of its volume: d goes with the cube root.
  expect(choice.ballSdMm / choice.ballMm).toBeCloseTo(0.08 / 3 / Math.sqrt(choice.passes), 6);
});

test('no foil releases for pads that are too small', () => {
  expect(bestStencil({ pitchMm: 0.2, padMm: 0.1, ballMm: 0.12, alloy: 'SAC305' })).toBeUndefined();
});

test('paste on a centre pad: about as high as the edge, and in windows that add up to it', () => {
  const centre = centrePaste({ lengthMm: 0.7, widthMm: 0.25 }, [3.2, 3.2], 0.1, 'SAC305');
  expect(centre.least).toBeLessThan(centre.take);
  expect(centre.take).toBeLessThan(centre.most);
  // Neither starves below 0.6 of the edge's height nor floats above it, and gas has its channels.
  expect(centre.centreHeightMm / centre.edgeHeightMm).toBeGreaterThan(0.6);
  expect(centre.centreHeightMm / centre.edgeHeightMm).toBeLessThan(1.1);
  expect(centre.most).toBeLessThanOrEqual(0.8);
  expect((centre.windows * centre.windowMm ** 2) / 3.2 ** 2).toBeCloseTo(centre.take, 9);
});
