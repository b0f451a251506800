import { MOST_PIXELS, enlarged, inspectBalls } from '@/core/inspect';
import { coloured, takePicture } from '@/devices/microscope';
import { greyPicture } from './grey-picture';
import type { InspectReply, InspectRequest } from './protocol';

const post = (reply: InspectReply): void => self.postMessage(reply);

self.onmessage = async ({ data }: MessageEvent<InspectRequest>): Promise<void> => {
  try {
    post(data.kind === 'take' ? { kind: 'taken', picture: await taken(data) } : await looked(data));
  } catch (error) {
    post({ kind: 'problem', words: `The look at the picture stopped: ${(error as Error).message}` });
  }
};

async function looked({ picture, part }: Extract<InspectRequest, { kind: 'look' }>): Promise<InspectReply> {
  const start = performance.now();
  const bitmap = await createImageBitmap(picture).catch(() => undefined);
  if (!bitmap) return { kind: 'problem', words: 'Expected a PNG or JPEG picture; this file is neither, or broken.' };
  const { width, height } = bitmap;
  if (width * height > MOST_PIXELS) {
    const got = ((width * height) / 1e6).toFixed(1);
    return { kind: 'problem', words: `Expected at most ${MOST_PIXELS / 1e6} megapixels; got ${got}.` };
  }
  const { grey, factor } = greyPicture(bitmap, part.pattern);
  const inspection = inspectBalls(grey, part.pattern, part);
  if (!inspection) {
    const { columns, rows } = part.pattern;
    return {
      kind: 'problem',
      words: `Expected a picture of ${columns} × ${rows} balls seen from above, all of them in it; this pattern was not found.`,
    };
  }
  return { kind: 'seen', inspection: enlarged(inspection, factor), width, height, tookMs: performance.now() - start };
}

async function taken({ part, specimen, seed }: Extract<InspectRequest, { kind: 'take' }>): Promise<Blob> {
  const sizes = { ball: part.ballMm / part.pitchMm, pad: part.padMm / part.pitchMm };
  const grey = takePicture(specimen, part.pattern, sizes, seed);
  const canvas = new OffscreenCanvas(grey.width, grey.height);
  canvas.getContext('2d')!.putImageData(new ImageData(coloured(grey), grey.width, grey.height), 0, 0);
  return canvas.convertToBlob({ type: 'image/png' });
}
