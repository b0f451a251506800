import { greyOf, type GreyPicture } from '../../core/inspect';

/** A decoded picture in grey, its longer side shrunk to at most so many px: the browser does that many times faster than a script. */
export function greyPicture(bitmap: ImageBitmap, mostPx: number): { grey: GreyPicture; factor: number } {
  const factor = Math.max(1, Math.max(bitmap.width, bitmap.height) / mostPx);
  const [width, height] = [Math.round(bitmap.width / factor), Math.round(bitmap.height / factor)];
  const context = new OffscreenCanvas(width, height).getContext('2d', { willReadFrequently: true })!;
  context.imageSmoothingQuality = 'high';
  context.drawImage(bitmap, 0, 0, width, height);
  bitmap.close();
  return { grey: greyOf(context.getImageData(0, 0, width, height).data, width, height), factor };
}
