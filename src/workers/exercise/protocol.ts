import type { Board } from '@/core/board';
import type { AirDrill, EyesDrill, Flight } from '@/core/drill';
import type { HeatCurves } from '@/core/heat';
import type { Homography, SitePattern } from '@/core/inspect';

/** What an exercise is played with: the true temperatures of a flight, or a picture to be judged. */
export type ExerciseRequest =
  | {
      readonly ask: 'fly';
      readonly board: Board;
      readonly drill: AirDrill;
      readonly flight: Flight;
      readonly untilS: number;
    }
  | { readonly ask: 'picture'; readonly drill: EyesDrill; readonly picture: number };

export interface ColouredPicture {
  readonly width: number;
  readonly height: number;
  readonly rgba: Uint8ClampedArray<ArrayBuffer>;
  readonly toPicture: Homography;
  readonly pattern: SitePattern;
}

export type ExerciseReply =
  | { readonly kind: 'flown'; readonly curves: HeatCurves }
  | { readonly kind: 'picture'; readonly picture: ColouredPicture }
  | { readonly kind: 'problem'; readonly message: string };
