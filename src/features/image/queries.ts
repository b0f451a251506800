import 'server-only';
import * as images from '@/application/jobs/image-bench';
import type { JobView } from '@/core/job';
import { database } from '@/db/client';

export type { ImageBench, ImageLibrary, KeptImage, RoleView } from '@/application/jobs/image-bench';

/** Everything the Image stage shows: the job's images judged by their family, compared region by region. */
export const loadImageBench = async (job: JobView): Promise<images.ImageBench> =>
  images.loadImageBench(await database(), job);

/** The bytes of a kept image; undefined when there is none of that name. */
export const loadImageBytes = async (sha256: string) => images.loadImageBytes(await database(), sha256);

/** All families and all kept images, pictures of parts left out. */
export const loadImageLibrary = async () => images.loadImageLibrary(await database());
