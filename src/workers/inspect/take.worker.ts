import type { GreyPicture } from '@/core/inspect';
import { ok } from '@/core/result';
import { coloured, takePadPicture, takePicture } from '@/devices/microscope';
import { serveTask } from '../serve';
import type { TakeRequest, takeTask } from './task';

serveTask<typeof takeTask>({
  stopped: 'Taking the picture stopped',
  compute: async (request) => ok(await asPng(pictureOf(request))),
});

function pictureOf(request: TakeRequest): GreyPicture {
  const { specimen, seed } = request;
  if (request.of === 'pads') return takePadPicture(specimen, request.pads, seed);
  const { pattern, ballMm, padMm, pitchMm } = request.part;
  return takePicture(specimen, pattern, { ball: ballMm / pitchMm, pad: padMm / pitchMm }, seed);
}

async function asPng(grey: GreyPicture): Promise<Blob> {
  const canvas = new OffscreenCanvas(grey.width, grey.height);
  canvas.getContext('2d')!.putImageData(new ImageData(coloured(grey), grey.width, grey.height), 0, 0);
  return canvas.convertToBlob({ type: 'image/png' });
}
