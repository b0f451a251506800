import type { Board } from '@/core/board';
import type { AirDrill, EyesDrill, Flight } from '@/core/drill';
import type { HeatCurves } from '@/core/heat';
import type { Homography, SitePattern } from '@/core/site';
import { defineWorkerTask } from '../task';

/** The true temperatures of a flight, up to a moment. */
export interface FlightRequest {
  readonly board: Board;
  readonly drill: AirDrill;
  readonly flight: Flight;
  readonly untilS: number;
}

/** One of the pictures that are to be judged. */
export interface PictureRequest {
  readonly drill: EyesDrill;
  readonly picture: number;
}

export interface ColouredPicture {
  readonly width: number;
  readonly height: number;
  readonly rgba: Uint8ClampedArray<ArrayBuffer>;
  readonly toPicture: Homography;
  readonly pattern: SitePattern;
}

/** Flies a run by hand; asked at every turn of the dial. */
export const flightTask = defineWorkerTask<FlightRequest, HeatCurves>({
  worker: () => new Worker(new URL('./flight.worker.ts', import.meta.url), { type: 'module' }),
  crashed: 'The flight’s worker ended unexpectedly. Load the page again; nothing was counted.',
  idle: 1,
});

/** Draws what is to be judged. */
export const pictureTask = defineWorkerTask<PictureRequest, ColouredPicture>({
  worker: () => new Worker(new URL('./picture.worker.ts', import.meta.url), { type: 'module' }),
  crashed: 'The picture’s worker ended unexpectedly. Load the page again; nothing was counted.',
  idle: 1,
});
