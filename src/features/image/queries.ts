import 'server-only';
import {
  compareImages,
  judgeImage,
  overviewOf,
  signsOf,
  type ImageFamily,
  type ImageVerdict,
  type RegionDifference,
  type Stretch,
} from '@/core/image';
import type { ImageRole, JobView } from '@/core/job';
import { database, type Database } from '@/db/client';
import { imageBytes, listImages, type ImageInfo } from '@/db/images';
import { findImageFamily } from '@/db/library';

/** An image in its role on a job, judged. */
export interface RoleView {
  readonly sha256: string;
  readonly name: string;
  readonly verdict: ImageVerdict;
  /** What seems to have happened to it. */
  readonly signs: readonly string[];
}

export interface ImageBench {
  readonly family?: ImageFamily;
  readonly library: readonly ImageInfo[];
  readonly roles: Readonly<Partial<Record<ImageRole, RoleView>>>;
  /** Patient against donor, region by region. */
  readonly differences: readonly RegionDifference[];
  readonly overview: readonly Stretch[];
}

const STRETCHES = 192;

/** Everything the Image stage shows: the job's images judged by their family, compared region by region. */
export async function loadImageBench(job: JobView): Promise<ImageBench> {
  const empty = { library: [], roles: {}, differences: [], overview: [] };
  const db = await database();
  const family = job.board.imageFamily ? await findImageFamily(db, job.board.imageFamily) : undefined;
  if (!family) return empty;
  const library = await listImages(db, family.id);
  const bytes = await bytesByRole(db, job);
  const roles: Partial<Record<ImageRole, RoleView>> = {};
  for (const role of ['patient', 'donor', 'merged'] as const) {
    const kept = job.state.images[role];
    const content = bytes[role];
    if (!kept || !content) continue;
    const signs = signsOf(family, [family], content).map((s) => s.words);
    roles[role] = { sha256: kept.sha256, name: kept.name, verdict: judgeImage(family, content), signs };
  }
  const { patient, donor } = bytes;
  return {
    family,
    library,
    roles,
    differences: patient && donor ? compareImages(family, patient, donor) : [],
    overview: patient ? overviewOf(patient, donor, STRETCHES) : [],
  };
}

async function bytesByRole(db: Database, job: JobView): Promise<Partial<Record<ImageRole, Uint8Array>>> {
  const entries = await Promise.all(
    Object.entries(job.state.images).map(async ([role, image]) => [role, await imageBytes(db, image.sha256)] as const),
  );
  return Object.fromEntries(entries);
}

/** The bytes of a kept image; undefined when there is none of that name. */
export async function loadImageBytes(sha256: string): Promise<Uint8Array<ArrayBuffer> | undefined> {
  const bytes = await imageBytes(await database(), sha256);
  return bytes && Uint8Array.from(bytes);
}
