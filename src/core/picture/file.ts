/** Signatures: PNG (ISO/IEC 15948, 5.2), JPEG (ITU-T T.81, B.1.1.3: start of image, then a marker). */
const PNG = [0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a];
const JPEG = [0xff, 0xd8, 0xff];

const begins = (bytes: Uint8Array, with_: readonly number[]): boolean => with_.every((b, i) => bytes[i] === b);

/** What a picture is by its first bytes; undefined where it is neither PNG nor JPEG. */
export function pictureType(bytes: Uint8Array): 'image/png' | 'image/jpeg' | undefined {
  if (begins(bytes, PNG)) return 'image/png';
  return begins(bytes, JPEG) ? 'image/jpeg' : undefined;
}

/** The largest picture that is kept. */
export const MOST_PICTURE_BYTES = 30_000_000;
