import {
  MOST_PIXELS,
  USEFUL_PAD_SIDE_PX,
  enlarged,
  enlargedMap,
  inspectBalls,
  inspectPads,
  usefulSidePx,
  type GreyPicture,
} from '@/core/inspect';
import { coloured, takePadPicture, takePicture } from '@/devices/microscope';
import { greyPicture } from './grey-picture';
import type { InspectReply, InspectRequest } from './protocol';

const post = (reply: InspectReply): void => self.postMessage(reply);

self.onmessage = async ({ data }: MessageEvent<InspectRequest>): Promise<void> => {
  try {
    post(await replyTo(data));
  } catch (error) {
    post({ kind: 'problem', message: `The look at the picture stopped: ${(error as Error).message}` });
  }
};

async function replyTo(request: InspectRequest): Promise<InspectReply> {
  switch (request.kind) {
    case 'take': {
      const { part, specimen, seed } = request;
      const sizes = { ball: part.ballMm / part.pitchMm, pad: part.padMm / part.pitchMm };
      return { kind: 'taken', picture: await asPng(takePicture(specimen, part.pattern, sizes, seed)) };
    }
    case 'takePads':
      return { kind: 'taken', picture: await asPng(takePadPicture(request.specimen, request.pads, request.seed)) };
    case 'look':
      return looked(request);
    case 'lookPads':
      return lookedAtPads(request);
  }
}

async function looked({ picture, part }: Extract<InspectRequest, { kind: 'look' }>): Promise<InspectReply> {
  const opened = await openPicture(picture, usefulSidePx(part.pattern));
  if ('message' in opened) return opened;
  const { grey, factor, width, height, start } = opened;
  const inspection = inspectBalls(grey, part.pattern, part);
  if (!inspection) {
    const { columns, rows } = part.pattern;
    return {
      kind: 'problem',
      message: `Expected a picture of ${columns} × ${rows} balls seen from above, all of them in it; this pattern was not found.`,
    };
  }
  return { kind: 'seen', inspection: enlarged(inspection, factor), width, height, tookMs: performance.now() - start };
}

async function lookedAtPads({ picture, pads }: Extract<InspectRequest, { kind: 'lookPads' }>): Promise<InspectReply> {
  const opened = await openPicture(picture, USEFUL_PAD_SIDE_PX);
  if ('message' in opened) return opened;
  const { grey, factor, width, height, start } = opened;
  const inspection = inspectPads(grey, pads);
  if (!inspection)
    return {
      kind: 'problem',
      message: `Expected a picture of the ${pads.length} pads seen from above, pin 1 at the top left, filling half of it or more; they were not found.`,
    };
  const toPicture = enlargedMap(inspection.toPicture, factor);
  const tookMs = performance.now() - start;
  return { kind: 'padsSeen', inspection: { ...inspection, toPicture }, width, height, tookMs };
}

interface Opened {
  readonly grey: GreyPicture;
  readonly factor: number;
  readonly width: number;
  readonly height: number;
  readonly start: number;
}

async function openPicture(
  picture: Blob,
  mostPx: number,
): Promise<Opened | Extract<InspectReply, { kind: 'problem' }>> {
  const start = performance.now();
  const bitmap = await createImageBitmap(picture).catch(() => undefined);
  if (!bitmap) return { kind: 'problem', message: 'Expected a PNG or JPEG picture; this file is neither, or broken.' };
  const { width, height } = bitmap;
  if (width * height > MOST_PIXELS) {
    const got = ((width * height) / 1e6).toFixed(1);
    return { kind: 'problem', message: `Expected at most ${MOST_PIXELS / 1e6} megapixels; got ${got}.` };
  }
  return { ...greyPicture(bitmap, mostPx), width, height, start };
}

async function asPng(grey: GreyPicture): Promise<Blob> {
  const canvas = new OffscreenCanvas(grey.width, grey.height);
  canvas.getContext('2d')!.putImageData(new ImageData(coloured(grey), grey.width, grey.height), 0, 0);
  return canvas.convertToBlob({ type: 'image/png' });
}
