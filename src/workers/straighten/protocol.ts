import type { Correspondence, PatternChoice, PhotoPlace, SeenBody } from '../../core/photo';

/** A photograph to be laid flat, or one that lies flat to be looked over for parts. */
export type StraightenRequest =
  | {
      readonly kind: 'lay';
      readonly picture: Blob;
      readonly points: readonly Correspondence[];
      readonly sizeMm: readonly [width: number, height: number];
    }
  | {
      readonly kind: 'look';
      /** Where the straightened picture is had. */
      readonly href: string;
      readonly widthMm: number;
      readonly choices: readonly PatternChoice[];
    };

export type StraightenReply =
  | { readonly kind: 'progress' }
  | { readonly kind: 'flat'; readonly picture: Blob; readonly place: PhotoPlace }
  | { readonly kind: 'seen'; readonly bodies: readonly SeenBody[] }
  | { readonly kind: 'problem'; readonly message: string };
