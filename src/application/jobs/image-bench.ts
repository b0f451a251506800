import type { Sha256 } from '../../core/identities';
import { memoriesOf } from '../../core/board';
import {
  compareAll,
  compareImages,
  judgeImage,
  proposeTransplant,
  signsOf,
  slotPosition,
  type Decided,
  type ImageFamily,
  type ImageVerdict,
  type ProposedTransplant,
  type RegionDifference,
  type OverviewCell,
} from '../../core/image';
import { custodyOf, IMAGE_ROLES, type CustodyLink, type ImageRole, type JobView } from '../../core/job';
import { memorySchool } from '../../core/parts';
import { imageBytes, listImages, type ImageInfo } from '../../db/images';
import { jobEventsOf } from '../../db/jobs';
import { findImageFamily, listImageFamilies } from '../../db/library';
import { listPartFamilies, listPartTypes } from '../../db/parts';
import type { Session } from '../../db/session';

export type KeptImage = ImageInfo;

/** An image in its role on a job, judged. */
export interface RoleView {
  readonly sha256: Sha256;
  readonly name: string;
  readonly verdict: ImageVerdict;
  /** What seems to have happened to it. */
  readonly signs: readonly string[];
}

export interface ImageBench {
  readonly family?: ImageFamily;
  /** All that are known: a dump may be of another. */
  readonly families: readonly ImageFamily[];
  readonly library: readonly KeptImage[];
  readonly roles: Readonly<Partial<Record<ImageRole, RoleView>>>;
  /** Patient against donor, region by region; the patient alone against itself. */
  readonly differences: readonly RegionDifference[];
  /** The patient's image and, where there is one, the donor's. */
  readonly overviews: readonly (readonly OverviewCell[])[];
  /** How the new image is best made of what is here; none without a patient's image. */
  readonly proposed?: ProposedTransplant;
  /** The position that the slot has on the board. */
  readonly position?: number;
  readonly custody: readonly CustodyLink[];
}

const STRETCHES = 192;

/** Judgements that stay in memory, by image, family and position: bytes under a hash never change. */
const judgements = new Map<string, Pick<RoleView, 'verdict' | 'signs'>>();
const MOST_JUDGEMENTS = 500;

function judged(
  sha256: Sha256,
  content: Uint8Array,
  family: ImageFamily,
  families: readonly ImageFamily[],
  position: number | undefined,
): Pick<RoleView, 'verdict' | 'signs'> {
  const name = JSON.stringify([sha256, family.id, family.revision, position, families.map((f) => [f.id, f.revision])]);
  const known = judgements.get(name);
  if (known) return known;
  const signs = signsOf(family, families, content, position).map((s) => s.words);
  const verdict = judgeImage(family, content);
  judgements.set(name, { verdict, signs });
  if (judgements.size > MOST_JUDGEMENTS) judgements.delete(judgements.keys().next().value!);
  return { verdict, signs };
}

/** Everything the Image stage shows: the job's images judged by their family, compared region by region. */
export async function loadImageBench(db: Session, job: JobView): Promise<ImageBench> {
  const empty = { families: [], library: [], roles: {}, differences: [], overviews: [], custody: [] };
  const family = job.board.imageFamily ? await findImageFamily(db, job.board.imageFamily) : undefined;
  if (!family) return empty;
  const [families, library, bytes, events, decided] = await Promise.all([
    listImageFamilies(db),
    listImages(db, family.id),
    bytesByRole(db, job),
    jobEventsOf(db, job.number),
    decidedFor(db, job, family),
  ]);
  const roles: Partial<Record<ImageRole, RoleView>> = {};
  for (const role of IMAGE_ROLES) {
    const image = job.state.images[role];
    const content = bytes[role];
    if (!image || !content) continue;
    const { sha256, name } = image;
    const position = role === 'before' ? undefined : decided.position;
    roles[role] = { sha256, name, ...judged(sha256, content, family, families, position) };
  }
  const { patient, donor } = bytes;
  const shared = { family, families, library, roles, position: decided.position, custody: custodyOf(events) };
  if (!patient) return { ...shared, differences: [], overviews: [] };
  const { against, overviews } = compareAll(donor ? [patient, donor] : [patient], STRETCHES, family);
  return {
    ...shared,
    differences: against[0]?.regions ?? compareImages(family, patient, patient),
    overviews,
    proposed: proposeTransplant(family, { patient, ...(donor && { donor }) }, decided),
  };
}

/** What the Decide stage, the board and the bench's school say of the image. */
async function decidedFor(db: Session, job: JobView, family: ImageFamily): Promise<Decided> {
  const [types, families] = await Promise.all([listPartTypes(db), listPartFamilies(db)]);
  const [memory] = memoriesOf(job.board);
  const slot = job.board.slots.find((s) => s.image === memory);
  const type = types.find((t) => t.id === slot?.type);
  const { route } = job.state;
  return {
    position: slotPosition(job.board, family),
    pairMoves: route?.actions.some((a) => a.kind === 'partner') ?? false,
    school: memorySchool(families.find((f) => f.id === type?.family)).school,
  };
}

async function bytesByRole(db: Session, job: JobView): Promise<Partial<Record<ImageRole, Uint8Array>>> {
  const entries = await Promise.all(
    Object.entries(job.state.images).map(async ([role, image]) => [role, await imageBytes(db, image.sha256)] as const),
  );
  return Object.fromEntries(entries);
}

/** The bytes of a kept image; undefined when there is none of that name. */
export async function loadImageBytes(db: Session, sha256: Sha256): Promise<Uint8Array<ArrayBuffer> | undefined> {
  const bytes = await imageBytes(db, sha256);
  return bytes && Uint8Array.from(bytes);
}

export interface ImageLibrary {
  readonly families: readonly ImageFamily[];
  readonly images: readonly KeptImage[];
}

/** All families and all kept images, pictures of parts left out. */
export async function loadImageLibrary(db: Session): Promise<ImageLibrary> {
  const families = await listImageFamilies(db);
  const lists = await Promise.all(families.map((f) => listImages(db, f.id)));
  return { families, images: lists.flat() };
}
