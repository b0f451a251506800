import cv from '@techstark/opencv-js';
import type { Pixels, SeenBody } from '../../src/core/photo';

/** Smaller outlines are noise, larger ones the board, mm². */
const AREA_MM2 = { least: 0.3, most: 200 };

/** Rectangles round the contours of what differs from its surroundings: grey, local threshold, outlines. Nothing is known of boards. */
export async function contourRects(
  { width, height, data }: Pixels,
  pxPerMm: number,
): Promise<Pick<SeenBody, 'xMm' | 'yMm' | 'pattern'>[]> {
  await ready;
  const picture = cv.matFromArray(height, width, cv.CV_8UC4, [...data]);
  const grey = new cv.Mat();
  cv.cvtColor(picture, grey, cv.COLOR_RGBA2GRAY);
  cv.GaussianBlur(grey, grey, new cv.Size(3, 3), 0);
  const block = 2 * Math.round(2 * pxPerMm) + 1;
  const mask = new cv.Mat();
  cv.adaptiveThreshold(grey, mask, 255, cv.ADAPTIVE_THRESH_MEAN_C, cv.THRESH_BINARY_INV, block, 12);
  const contours = new cv.MatVector();
  const hierarchy = new cv.Mat();
  cv.findContours(mask, contours, hierarchy, cv.RETR_EXTERNAL, cv.CHAIN_APPROX_SIMPLE);
  const found: Pick<SeenBody, 'xMm' | 'yMm' | 'pattern'>[] = [];
  for (let i = 0; i < Number(contours.size()); i++) {
    const { center, size } = cv.minAreaRect(contours.get(i));
    const area = (size.width * size.height) / pxPerMm ** 2;
    if (area < AREA_MM2.least || area > AREA_MM2.most) continue;
    found.push({ xMm: center.x / pxPerMm, yMm: center.y / pxPerMm, pattern: '' });
  }
  for (const m of [picture, grey, mask, contours, hierarchy]) m.delete();
  return found;
}

const ready = new Promise<void>((resolve) => {
  if ((cv as { Mat?: unknown }).Mat) resolve();
  else (cv as { onRuntimeInitialized?: () => void }).onRuntimeInitialized = () => resolve();
});
