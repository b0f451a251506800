import { pictureType } from './file';

test('pictures by their first bytes (PNG: ISO/IEC 15948, 5.2; JPEG: ITU-T T.81, B.1.1.3)', () => {
  expect(pictureType(Uint8Array.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a, 1]))).toBe('image/png');
  expect(pictureType(Uint8Array.from([0xff, 0xd8, 0xff, 0xe0]))).toBe('image/jpeg');
  for (const bytes of [[], [0x89, 0x50], [0xff, 0xd8], [0x3c, 0x73, 0x76, 0x67], [0x47, 0x49, 0x46, 0x38]])
    expect(pictureType(Uint8Array.from(bytes))).toBeUndefined();
});
