import {
  HARD,
  drawPadScene,
  drawScene,
  renderPadScene,
  renderScene,
  type BallSizes,
  type GreyPicture,
  type Trouble,
} from '../../core/inspect';
import type { SitePad, SitePattern } from '../../core/site';
import { seededRandom } from '../../core/math';

/** What lies under the simulated microscope. */
export const SPECIMENS = ['sound', 'worn', 'badly lit'] as const;
export type Specimen = (typeof SPECIMENS)[number];

const TROUBLES: Readonly<Record<Specimen, Trouble>> = {
  sound: { ...HARD, defects: 0, hairs: 0, glares: 0, debris: 0, tiltDeg: 2, slope: 0.2, noise: 3, blurPx: 0.8 },
  worn: { ...HARD, defects: 0.08, hairs: 1, glares: 0, tiltDeg: 4, slope: 0.3, noise: 4, blurPx: 0.9 },
  'badly lit': { ...HARD, defects: 0.05 },
};

const PITCH_PX = 44;

/** A camera over a part with balls: stands in for a real one. The same seed gives the same picture. */
export const takePicture = (specimen: Specimen, pattern: SitePattern, sizes: BallSizes, seed: number): GreyPicture => {
  const random = seededRandom(seed);
  return renderScene(drawScene(pattern, sizes, PITCH_PX, random, TROUBLES[specimen]), random);
};

/** Pixels to the narrowest pad of a site. */
const PAD_PX = 22;

/** The same camera over a cleaned site. */
export const takePadPicture = (specimen: Specimen, pads: readonly SitePad[], seed: number): GreyPicture => {
  const random = seededRandom(seed);
  const narrowMm = Math.min(...pads.map((p) => Math.min(p.wMm, p.hMm)));
  return renderPadScene(drawPadScene(pads, PAD_PX / narrowMm, random, TROUBLES[specimen]), random);
};

/** The colours between which grey lies: solder mask in the dark, tin in the light. */
const DARK = [16, 44, 46];
const LIGHT = [250, 246, 234];

/** As the camera gives it: red, green, blue and alpha of each pixel. */
export function coloured({ grey }: GreyPicture): Uint8ClampedArray<ArrayBuffer> {
  const rgba = new Uint8ClampedArray(4 * grey.length);
  for (let i = 0; i < grey.length; i++) {
    for (let c = 0; c < 3; c++) rgba[4 * i + c] = DARK[c] + ((LIGHT[c] - DARK[c]) * grey[i]) / 255;
    rgba[4 * i + 3] = 255;
  }
  return rgba;
}
