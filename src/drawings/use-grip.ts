import { useRef, useState, type PointerEvent, type RefObject } from 'react';
import type { Side } from '@/core/board';

/** What a hand does on the drawing, in board millimetres. */
export interface DrawingHand {
  /** A click where a part is to be placed. */
  readonly onPlace?: (xMm: number, yMm: number, side: Side) => void;
  /** True for parts that a click takes up even while another is to be placed. */
  readonly picks: (ref: string) => boolean;
  /** A part was dragged to another place. */
  readonly onMove: (ref: string, xMm: number, yMm: number) => void;
}

export type BoxMm = { readonly x0: number; readonly y0: number; readonly x1: number; readonly y1: number };

/** Where a place is drawn: the back is seen from behind. */
export const mirrored = (xMm: number, side: Side, box: BoxMm): number =>
  side === 'back' ? box.x0 + box.x1 - xMm : xMm;

/** The part under a pointer. */
export const refAt = (target: EventTarget | null): string | undefined =>
  (target as Element | null)?.closest?.<SVGGElement>('[data-ref]')?.dataset.ref;

/** A move of less than this is a click, px. */
const CLICK_PX = 4;

interface GripProps {
  readonly inner: RefObject<SVGGElement | null>;
  readonly side: Side;
  readonly box: BoxMm;
  readonly hand?: DrawingHand;
  readonly onPick?: (name: string) => void;
}

/** Parts under a hand: pressed, dragged and let go; a press without a drag picks, or places what is to be placed. */
export function useGrip({ inner, side, box, hand, onPick }: GripProps) {
  const [held, setHeld] = useState<{ ref: string; xMm: number; yMm: number }>();
  const from = useRef<{ x: number; y: number; ref?: string } | undefined>(undefined);
  function placeOf(event: PointerEvent): { xMm: number; yMm: number } {
    const { x, y } = new DOMPoint(event.clientX, event.clientY).matrixTransform(
      inner.current!.getScreenCTM()!.inverse(),
    );
    return { xMm: mirrored(x, side, box), yMm: y };
  }
  return {
    held,
    onPointerDown(event: PointerEvent<SVGSVGElement>) {
      from.current = { x: event.clientX, y: event.clientY, ref: refAt(event.target) };
    },
    onPointerMove(event: PointerEvent<SVGSVGElement>) {
      const start = from.current;
      if (!start?.ref || Math.hypot(event.clientX - start.x, event.clientY - start.y) < CLICK_PX) return;
      event.currentTarget.setPointerCapture(event.pointerId);
      setHeld({ ref: start.ref, ...placeOf(event) });
    },
    onPointerUp(event: PointerEvent<SVGSVGElement>) {
      const start = from.current;
      from.current = undefined;
      setHeld(undefined);
      if (!start) return;
      const { xMm, yMm } = placeOf(event);
      if (held) hand?.onMove(held.ref, xMm, yMm);
      else if (Math.hypot(event.clientX - start.x, event.clientY - start.y) >= CLICK_PX) return;
      else if (start.ref && (!hand?.onPlace || hand.picks(start.ref))) onPick?.(start.ref);
      else hand?.onPlace?.(xMm, yMm, side);
    },
  };
}
