import { homographyOf, placeDoubtMm, pxPerMmFor, straightened } from '@/core/photo';
import { ok, type Result } from '@/core/result';
import { serveTask } from '../serve';
import { pixelsOf } from './pixels';
import type { FlatPhoto, FlattenRequest, flattenTask } from './task';

/** A careful click on a corner is as good as this, px of the photograph. Engineering estimate. */
const CLICK_PX = 2;
const QUALITY = 0.88;

serveTask<typeof flattenTask>({ stopped: 'Laying the photograph flat stopped', compute: flatten });

async function flatten({ picture, points, sizeMm }: FlattenRequest): Promise<Result<FlatPhoto>> {
  const [widthMm, heightMm] = sizeMm;
  const map = homographyOf(points);
  if (!map.ok) return map;
  const photo = pixelsOf(await createImageBitmap(picture));
  const pxPerMm = pxPerMmFor(widthMm, heightMm);
  const pixels = straightened(photo, map.value, widthMm, heightMm, pxPerMm);
  const sheet = new OffscreenCanvas(pixels.width, pixels.height);
  sheet
    .getContext('2d')!
    .putImageData(new ImageData(new Uint8ClampedArray(pixels.data), pixels.width, pixels.height), 0, 0);
  const doubtMm = placeDoubtMm(points, { x: widthMm / 2, y: heightMm / 2 }, CLICK_PX);
  return ok({
    picture: await sheet.convertToBlob({ type: 'image/jpeg', quality: QUALITY }),
    place: { widthMm, heightMm, pxPerMm, doubtMm },
  });
}
