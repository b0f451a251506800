import { greyOf, usefulSidePx, type GreyPicture, type SitePattern } from '../../core/inspect';

/** A decoded picture in grey, shrunk as far as its pattern allows: the browser does that many times faster than a script. */
export function greyPicture(bitmap: ImageBitmap, pattern: SitePattern): { grey: GreyPicture; factor: number } {
  const factor = Math.max(1, Math.max(bitmap.width, bitmap.height) / usefulSidePx(pattern));
  const [width, height] = [Math.round(bitmap.width / factor), Math.round(bitmap.height / factor)];
  const context = new OffscreenCanvas(width, height).getContext('2d', { willReadFrequently: true })!;
  context.imageSmoothingQuality = 'high';
  context.drawImage(bitmap, 0, 0, width, height);
  bitmap.close();
  return { grey: greyOf(context.getImageData(0, 0, width, height).data, width, height), factor };
}
