import type { NetName, PartRef } from '../identities';
import type { PartKind, Side } from '../board';

/** A place that is named on a board in the making: a pin, or a net. */
export type Node = { readonly ref: PartRef; readonly pin: string } | { readonly net: NetName };

/** One thing that was learned of a board and is written into its file. Typed lines, drags and fields make the same edits. */
export type BoardEdit =
  | {
      readonly kind: 'add';
      readonly ref: PartRef;
      readonly part: PartKind;
      readonly pattern: string;
      readonly nets: readonly NetName[];
      readonly at?: PartPlace;
    }
  | { readonly kind: 'remove'; readonly ref: PartRef }
  | { readonly kind: 'rename'; readonly ref: PartRef; readonly to: string }
  | { readonly kind: 'what'; readonly ref: PartRef; readonly part: PartKind }
  | ({ readonly kind: 'place'; readonly ref: PartRef } & PartPlace)
  | ({ readonly kind: 'seen'; readonly ref: PartRef; readonly pattern: string } & PartPlace)
  | { readonly kind: 'package'; readonly ref: PartRef; readonly pattern: string }
  | { readonly kind: 'join'; readonly a: Node; readonly b: Node }
  | {
      readonly kind: 'point';
      readonly id: string;
      readonly net: NetName;
      readonly at?: { readonly xMm: number; readonly yMm: number; readonly side: Side };
    }
  | { readonly kind: 'level'; readonly net: NetName; readonly volts: number }
  | { readonly kind: 'sound'; readonly net: NetName; readonly ohm?: number; readonly dropV?: number }
  | { readonly kind: 'value'; readonly ref: PartRef; readonly ohm: number }
  | { readonly kind: 'size'; readonly sizeMm: readonly [number, number] }
  | { readonly kind: 'stack'; readonly thicknessMm: number; readonly layers: number }
  | { readonly kind: 'complete' }
  | { readonly kind: 'name'; readonly device: string; readonly name: string; readonly revision: string };

export interface PartPlace {
  readonly xMm: number;
  readonly yMm: number;
  readonly rotationDeg?: number;
  readonly side?: Side;
}
