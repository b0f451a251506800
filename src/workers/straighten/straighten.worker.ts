import { homographyOf, placeDoubtMm, pxPerMmFor, seenBodies, straightened, type Pixels } from '@/core/photo';
import { problemText } from '@/core/result';
import type { StraightenReply, StraightenRequest } from './protocol';

const post = (reply: StraightenReply): void => self.postMessage(reply);

/** A careful click on a corner is as good as this, px of the photograph. Engineering estimate. */
const CLICK_PX = 2;
const QUALITY = 0.88;

self.onmessage = async ({ data }: MessageEvent<StraightenRequest>): Promise<void> => {
  try {
    post(data.kind === 'lay' ? await flat(data) : await looked(data));
  } catch (error) {
    post({ kind: 'problem', message: `Laying the photograph flat stopped: ${(error as Error).message}` });
  }
};

/** Parts are looked for at this scale: finer tells no more of them, px per mm. Engineering estimate. */
const LOOK_PX_PER_MM = 16;

async function looked({
  href,
  widthMm,
  choices,
}: Extract<StraightenRequest, { kind: 'look' }>): Promise<StraightenReply> {
  const bitmap = await createImageBitmap(await (await fetch(href)).blob());
  const scale = Math.min(1, (LOOK_PX_PER_MM * widthMm) / bitmap.width);
  const photo = pixelsOf(bitmap, scale);
  return { kind: 'seen', bodies: seenBodies(photo, photo.width / widthMm, choices) };
}

/** The pixels of a picture, scaled down. */
function pixelsOf(bitmap: ImageBitmap, scale = 1): Pixels {
  const [width, height] = [Math.round(bitmap.width * scale), Math.round(bitmap.height * scale)];
  const context = new OffscreenCanvas(width, height).getContext('2d', { willReadFrequently: true })!;
  context.imageSmoothingQuality = 'high';
  context.drawImage(bitmap, 0, 0, width, height);
  bitmap.close();
  return context.getImageData(0, 0, width, height);
}

async function flat({
  picture,
  points,
  sizeMm: [width, height],
}: Extract<StraightenRequest, { kind: 'lay' }>): Promise<StraightenReply> {
  const map = homographyOf(points);
  if (!map.ok) return { kind: 'problem', message: problemText(map.problems) };
  const photo = pixelsOf(await createImageBitmap(picture));
  const pxPerMm = pxPerMmFor(width, height);
  const pixels = straightened(photo, map.value, width, height, pxPerMm);
  const sheet = new OffscreenCanvas(pixels.width, pixels.height);
  sheet
    .getContext('2d')!
    .putImageData(new ImageData(new Uint8ClampedArray(pixels.data), pixels.width, pixels.height), 0, 0);
  return {
    kind: 'flat',
    picture: await sheet.convertToBlob({ type: 'image/jpeg', quality: QUALITY }),
    place: {
      widthMm: width,
      heightMm: height,
      pxPerMm,
      doubtMm: placeDoubtMm(points, { x: width / 2, y: height / 2 }, CLICK_PX),
    },
  };
}
