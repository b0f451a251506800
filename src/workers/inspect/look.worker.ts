import {
  MOST_PIXELS,
  USEFUL_PAD_SIDE_PX,
  enlarged,
  inspectBalls,
  inspectPads,
  usefulSidePx,
  type GreyPicture,
} from '@/core/inspect';
import { fail, ok, type Result } from '@/core/result';
import { scaled } from '@/core/site';
import { serveTask } from '../serve';
import { greyPicture } from './grey-picture';
import type { Look, LookRequest, lookTask } from './task';

serveTask<typeof lookTask>({ stopped: 'The look at the picture stopped', compute: lookAt });

async function lookAt(request: LookRequest): Promise<Result<Look>> {
  const mostPx = request.of === 'pads' ? USEFUL_PAD_SIDE_PX : usefulSidePx(request.part.pattern);
  const opened = await openPicture(request.picture, mostPx);
  if (!opened.ok) return opened;
  return request.of === 'pads' ? padsIn(opened.value, request) : ballsIn(opened.value, request);
}

function ballsIn(opened: Opened, { part }: Extract<LookRequest, { of: 'balls' }>): Result<Look> {
  const { grey, factor, width, height } = opened;
  const inspection = inspectBalls(grey, part.pattern, part);
  const { columns, rows } = part.pattern;
  return inspection
    ? ok({ of: 'balls', inspection: enlarged(inspection, factor), width, height })
    : fail(
        `Expected a picture of ${columns} × ${rows} balls seen from above, all of them in it; this pattern was not found.`,
      );
}

function padsIn(opened: Opened, { pads }: Extract<LookRequest, { of: 'pads' }>): Result<Look> {
  const { grey, factor, width, height } = opened;
  const inspection = inspectPads(grey, pads);
  if (!inspection)
    return fail(
      `Expected a picture of the ${pads.length} pads seen from above, pin 1 at the top left, filling half of it or more; they were not found.`,
    );
  const toPicture = scaled(inspection.toPicture, factor);
  return ok({ of: 'pads', inspection: { ...inspection, toPicture }, width, height });
}

interface Opened {
  readonly grey: GreyPicture;
  readonly factor: number;
  readonly width: number;
  readonly height: number;
}

async function openPicture(picture: Blob, mostPx: number): Promise<Result<Opened>> {
  const bitmap = await createImageBitmap(picture).catch(() => undefined);
  if (!bitmap) return fail('Expected a PNG or JPEG picture; this file is neither, or broken.');
  const { width, height } = bitmap;
  if (width * height > MOST_PIXELS) {
    const got = ((width * height) / 1e6).toFixed(1);
    return fail(`Expected at most ${MOST_PIXELS / 1e6} megapixels; got ${got}.`);
  }
  return ok({ ...greyPicture(bitmap, mostPx), width, height });
}
