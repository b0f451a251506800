import { seenBodies } from '@/core/photo';
import { ok } from '@/core/result';
import { serveTask } from '../serve';
import { pixelsOf } from './pixels';
import type { bodiesTask } from './task';

/** Parts are looked for at this scale: finer tells no more of them, px per mm. Engineering estimate. */
const LOOK_PX_PER_MM = 16;

serveTask<typeof bodiesTask>({
  stopped: 'The look at the photograph stopped',
  compute: async ({ href, widthMm, choices }) => {
    const bitmap = await createImageBitmap(await (await fetch(href)).blob());
    const photo = pixelsOf(bitmap, Math.min(1, (LOOK_PX_PER_MM * widthMm) / bitmap.width));
    return ok(seenBodies(photo, photo.width / widthMm, choices));
  },
});
