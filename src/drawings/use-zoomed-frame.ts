'use client';

import { useEffect, useRef, useState } from 'react';
import { select } from 'd3-selection';
import { zoom, zoomIdentity, type ZoomBehavior, type ZoomTransform } from 'd3-zoom';
import { refAt } from './use-grip';

/**
 * A drawing that is panned with the pointer and zoomed with the wheel: its size in pixels, and how it is moved.
 * @param isHandled parts are laid by hand: what a hand drags is a part, not the paper.
 */
export function useZoomedFrame(isHandled: boolean) {
  const frame = useRef<SVGSVGElement>(null);
  const zooming = useRef<ZoomBehavior<SVGSVGElement, unknown>>(null);
  const [size, setSize] = useState({ w: 736, h: 420 });
  const [view, setView] = useState<ZoomTransform>(zoomIdentity);
  const handled = useRef(false);
  useEffect(() => {
    handled.current = isHandled;
  }, [isHandled]);

  useEffect(() => {
    const svg = frame.current!;
    const watcher = new ResizeObserver(([entry]) =>
      setSize({ w: entry.contentRect.width, h: entry.contentRect.height }),
    );
    watcher.observe(svg);
    const behaviour = zoom<SVGSVGElement, unknown>()
      .scaleExtent([1, 16])
      .filter(
        (event: MouseEvent) =>
          !event.ctrlKey && !event.button && !(handled.current && event.type !== 'wheel' && refAt(event.target)),
      )
      .on('zoom', (event: { transform: ZoomTransform }) => setView(event.transform));
    zooming.current = behaviour;
    select(svg).call(behaviour);
    return () => watcher.disconnect();
  }, []);

  const showWhole = (): void => void select(frame.current!).call(zooming.current!.transform, zoomIdentity);
  return { frame, size, view, showWhole };
}
