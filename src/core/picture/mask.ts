/** A rectangle of a picture, whole pixels. */
export interface Mask {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

/**
 * Covers parts of a picture with black, in place. Nothing of what was there goes into the covered pixels: blurred or coarse
 * ones can be undone.
 * @param rgba four bytes a pixel, row by row.
 */
export function maskPixels(rgba: Uint8ClampedArray, widthPx: number, masks: readonly Mask[]): void {
  const heightPx = rgba.length / 4 / widthPx;
  for (const { x, y, width, height } of masks) {
    const [left, right] = [clamp(x, widthPx), clamp(x + width, widthPx)];
    for (let row = clamp(y, heightPx); row < clamp(y + height, heightPx); row++) {
      rgba.fill(0, 4 * (row * widthPx + left), 4 * (row * widthPx + right));
      for (let column = left; column < right; column++) rgba[4 * (row * widthPx + column) + 3] = 255;
    }
  }
}

const clamp = (value: number, most: number): number => Math.min(most, Math.max(0, Math.round(value)));

/** Markers of JPEG (ITU-T T.81, table B.1) by their second byte. */
const SOS = 0xda;
const EOI = 0xd9;
/** JFIF's own segment and a colour profile: everything else that an application writes may say who, where and when. */
const HARMLESS = new Set([0xe0, 0xe2]);
const isApplication = (marker: number): boolean => (marker >= 0xe0 && marker <= 0xef) || marker === 0xfe;

/**
 * What a JPEG carries beside its picture: places, times, a small copy from before the masks, or bytes behind its end.
 * @returns a few words; undefined where there is nothing.
 */
export function hiddenInJpeg(bytes: Uint8Array): string | undefined {
  let at = 2;
  while (at + 4 <= bytes.length && bytes[at] === 0xff) {
    const marker = bytes[at + 1];
    if (isApplication(marker) && !HARMLESS.has(marker)) return 'data of the camera (EXIF or the like)';
    if (marker === SOS) {
      const end = endOfImage(bytes, at);
      return end === undefined || end < bytes.length ? 'bytes behind its end' : undefined;
    }
    at += 2 + (bytes[at + 2] << 8) + bytes[at + 3];
  }
  return 'no picture';
}

/** The place behind the end marker: the first that no picture data can hold. */
function endOfImage(bytes: Uint8Array, from: number): number | undefined {
  for (let at = from; at + 1 < bytes.length; at++) if (bytes[at] === 0xff && bytes[at + 1] === EOI) return at + 2;
  return undefined;
}
