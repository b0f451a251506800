import type { Inspection, PadInspection } from '@/core/inspect';
import type { BalledPart, SitePad } from '@/core/site';
import type { Specimen } from '@/devices/microscope';
import { defineWorkerTask } from '../task';

/** A picture as a file and what it should show. */
export type LookRequest =
  | { readonly of: 'balls'; readonly picture: Blob; readonly part: BalledPart }
  | { readonly of: 'pads'; readonly picture: Blob; readonly pads: readonly SitePad[] };

/** What was seen in a picture, in its own px. */
export type Look =
  | { readonly of: 'balls'; readonly inspection: Inspection; readonly width: number; readonly height: number }
  | { readonly of: 'pads'; readonly inspection: PadInspection; readonly width: number; readonly height: number };

/** A picture to be taken by the simulated microscope. */
export type TakeRequest = (
  { readonly of: 'balls'; readonly part: BalledPart } | { readonly of: 'pads'; readonly pads: readonly SitePad[] }
) & { readonly specimen: Specimen; readonly seed: number };

/** Looks a picture over. */
export const lookTask = defineWorkerTask<LookRequest, Look>({
  worker: () => new Worker(new URL('./look.worker.ts', import.meta.url), { type: 'module' }),
  crashed: 'The worker that looks at pictures ended unexpectedly. Try again.',
});

/** Takes a simulated picture, as PNG. */
export const takeTask = defineWorkerTask<TakeRequest, Blob>({
  worker: () => new Worker(new URL('./take.worker.ts', import.meta.url), { type: 'module' }),
  crashed: 'The worker that takes pictures ended unexpectedly. Try again.',
});
