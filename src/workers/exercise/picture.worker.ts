import { eyesPicture } from '@/core/drill';
import { ok } from '@/core/result';
import { coloured } from '@/devices/microscope';
import { serveTask } from '../serve';
import type { pictureTask } from './task';

serveTask<typeof pictureTask>({
  stopped: 'Drawing the picture stopped',
  compute: ({ drill, picture: index }) => {
    const { picture, toPicture, pattern } = eyesPicture(drill, index);
    return ok({ width: picture.width, height: picture.height, rgba: coloured(picture), toPicture, pattern });
  },
});
