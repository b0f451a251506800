import type { Board } from '../../core/board';
import type { Carry } from '../../core/sketch';

/** How far does the file of this board carry? */
export interface CarryRequest {
  readonly board: Board;
}

export type CarryReply =
  | { readonly kind: 'progress' }
  | { readonly kind: 'carry'; readonly carry: Carry }
  | { readonly kind: 'problem'; readonly message: string };
