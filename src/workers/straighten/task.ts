import type { PhotoPlace } from '../../core/board';
import type { Correspondence, PatternChoice, SeenBody } from '../../core/photo';
import { defineWorkerTask } from '../task';

/** A photograph to be laid flat. */
export interface FlattenRequest {
  readonly picture: Blob;
  readonly points: readonly Correspondence[];
  readonly sizeMm: readonly [width: number, height: number];
}

export interface FlatPhoto {
  readonly picture: Blob;
  readonly place: PhotoPlace;
}

/** A photograph that lies flat, to be looked over for parts. */
export interface BodiesRequest {
  /** Where the straightened picture is had. */
  readonly href: string;
  readonly widthMm: number;
  readonly choices: readonly PatternChoice[];
}

/** Lays a photograph flat. */
export const flattenTask = defineWorkerTask<FlattenRequest, FlatPhoto>({
  worker: () => new Worker(new URL('./flatten.worker.ts', import.meta.url), { type: 'module' }),
  crashed: 'The worker that lays photographs flat ended unexpectedly. Try again.',
});

/** Looks a photograph over for parts. */
export const bodiesTask = defineWorkerTask<BodiesRequest, readonly SeenBody[]>({
  worker: () => new Worker(new URL('./bodies.worker.ts', import.meta.url), { type: 'module' }),
  crashed: 'The worker that looks at photographs ended unexpectedly. Try again.',
});
