import type { BalledPart, Inspection, PadInspection, SitePad } from '@/core/inspect';
import type { Specimen } from '@/devices/microscope';

/** A picture as a file and the part that it should show; or a picture to be taken by the simulated microscope. */
export type InspectRequest =
  | { readonly kind: 'look'; readonly picture: Blob; readonly part: BalledPart }
  | { readonly kind: 'take'; readonly part: BalledPart; readonly specimen: Specimen; readonly seed: number }
  | { readonly kind: 'lookPads'; readonly picture: Blob; readonly pads: readonly SitePad[] }
  | {
      readonly kind: 'takePads';
      readonly pads: readonly SitePad[];
      readonly specimen: Specimen;
      readonly seed: number;
    };

export type InspectReply =
  | { readonly kind: 'progress' }
  | {
      readonly kind: 'seen';
      readonly inspection: Inspection;
      readonly width: number;
      readonly height: number;
      readonly tookMs: number;
    }
  | {
      readonly kind: 'padsSeen';
      readonly inspection: PadInspection;
      readonly width: number;
      readonly height: number;
      readonly tookMs: number;
    }
  | { readonly kind: 'taken'; readonly picture: Blob }
  | { readonly kind: 'problem'; readonly message: string };
