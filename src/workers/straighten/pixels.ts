import type { Pixels } from '@/core/photo';

/** The pixels of a picture, scaled down; the picture is closed. */
export function pixelsOf(bitmap: ImageBitmap, scale = 1): Pixels {
  const [width, height] = [Math.round(bitmap.width * scale), Math.round(bitmap.height * scale)];
  const context = new OffscreenCanvas(width, height).getContext('2d', { willReadFrequently: true })!;
  context.imageSmoothingQuality = 'high';
  context.drawImage(bitmap, 0, 0, width, height);
  bitmap.close();
  return context.getImageData(0, 0, width, height);
}
