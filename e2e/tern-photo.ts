/** A third invented board that only this renderer knows: its front as a photograph, askew, in uneven light and with noise. */
import { encode, Image } from 'image-js';
import { mapPoint, type Homography } from '../src/core/site';
import { photographed, type BoardScene, type DrawnPart } from '../src/core/photo/tests/board-scene';

export const TERN_MM = [58, 36] as const;
const PHOTO_PX = { width: 1900, height: 1300 };
const CAMERA: Homography = [29.5, 1.3, 90, -1.1, 30.2, 110, 0.0006, -0.0005];

const chip = (ref: string, pins: number, pitchMm: number, xMm: number, yMm: number): DrawnPart => {
  const side = (pins / 4 - 1) * pitchMm + 1.5;
  return { ref, pattern: `QFN-${pins}-${pitchMm}`, look: 'leadless', bodyMm: [side, side], pins, pitchMm, xMm, yMm };
};
const two = (ref: string, look: 'capacitor' | 'resistor', size: number, xMm: number, yMm: number): DrawnPart => ({
  ...{ ref, look, xMm, yMm, pattern: ['CHIP-1005', 'CHIP-1608', 'CHIP-2012'][size] },
  bodyMm: (
    [
      [1, 0.5],
      [1.6, 0.8],
      [2, 1.25],
    ] as const
  )[size],
});

/** What lies on it, by the designators printed beside. */
export const TERN_PARTS: readonly DrawnPart[] = [
  { ref: 'J1', pattern: 'PORT-24', look: 'port', bodyMm: [9, 9.2], xMm: 5, yMm: 18 },
  chip('U4', 40, 0.5, 22, 11),
  { ref: 'U9', pattern: 'SOIC-8', look: 'legs', bodyMm: [3.9, 4.9], pins: 8, pitchMm: 1.27, xMm: 30, yMm: 7 },
  { ref: 'F1', pattern: 'CHIP-3216', look: 'fuse', bodyMm: [3.2, 1.6], xMm: 14, yMm: 25 },
  { ref: 'Q1', pattern: 'FET-3.3', look: 'fet', bodyMm: [3.3, 3.3], xMm: 20, yMm: 25 },
  { ref: 'L1', pattern: 'COIL-4040', look: 'coil', bodyMm: [4, 4], xMm: 37, yMm: 21 },
  chip('U2', 32, 0.5, 29, 21),
  { ref: 'U8', pattern: 'BGA-100-0.8', look: 'balls', bodyMm: [7.9, 7.9], xMm: 50, yMm: 14 },
  two('C1', 'capacitor', 1, 12, 9),
  two('C2', 'capacitor', 1, 18, 30),
  two('C3', 'capacitor', 0, 26, 14.5),
  two('C4', 'capacitor', 0, 17, 14.5),
  two('C6', 'capacitor', 2, 25, 27),
  two('C7', 'capacitor', 2, 41, 27),
  two('R4', 'resistor', 0, 33, 13),
  two('R5', 'resistor', 0, 36, 13),
];

const SCENE: BoardScene = { sizeMm: TERN_MM, parts: TERN_PARTS, mask: [26, 88, 60], seed: 12, light: 0.35, noise: 5 };

/** The photograph as a PNG. */
export function ternPhoto(): Buffer {
  const { width, height, data } = photographed(SCENE, CAMERA, PHOTO_PX.width, PHOTO_PX.height);
  const image = new Image(width, height, { data: new Uint8Array(data.buffer), colorModel: 'RGBA' });
  return Buffer.from(encode(image.convertColor('RGB'), { format: 'png' }));
}

/** Where the board's corners are in it, as shares of its width and height: top left first, clockwise. */
export const TERN_CORNERS = [
  [0, 0],
  [TERN_MM[0], 0],
  [TERN_MM[0], TERN_MM[1]],
  [0, TERN_MM[1]],
].map(([x, y]) => {
  const at = mapPoint(CAMERA, { x, y });
  return { x: at.x / PHOTO_PX.width, y: at.y / PHOTO_PX.height };
});
