'use client';

import { useCallback, useRef, useState, type MouseEvent, type PointerEvent } from 'react';
import { Box, chakra } from '@chakra-ui/react';
import type { Point } from '@/core/site';
import { CornerMarks, Loupe, type Frame, type Full } from './photo-marks';

/** Larger photographs are refused: 24 megapixels and a margin for cameras that count their frame. */
const MOST_MEGAPIXELS = 25;
export interface ShownPhotoProps {
  readonly file: File;
  readonly alt: string;
  /** The corners that were clicked, px of the photograph. */
  readonly corners: readonly Point[];
  /** A click on the photograph; nothing where no corner is asked for. */
  readonly onCorner?: (at: Point) => void;
  readonly onProblem: (words: string) => void;
}

/** A photograph from where it lies, with its corners and a loupe under the pointer: it does not leave the browser. */
export function ShownPhoto({ file, alt, corners, onCorner, onProblem }: ShownPhotoProps) {
  const [frame, setFrame] = useState<Frame>();
  const [full, setFull] = useState<Full>();
  const [at, setAt] = useState<Point & { readonly url: string }>();
  const image = useRef<HTMLImageElement | null>(null);
  /** The picture is let go with the page. */
  const show = useCallback(
    (shown: HTMLImageElement | null) => {
      if (!shown) return undefined;
      const url = URL.createObjectURL(file);
      const watcher = new ResizeObserver(() => {
        const { offsetLeft: left, offsetTop: top, clientWidth: width, clientHeight: height } = shown;
        setFrame({ left, top, width, height });
      });
      image.current = shown;
      shown.src = url;
      watcher.observe(shown);
      return () => {
        watcher.disconnect();
        URL.revokeObjectURL(url);
      };
    },
    [file],
  );

  const broken = (): void =>
    onProblem(
      file.size === 0
        ? `${file.name}: expected a picture; the file is empty.`
        : `${file.name}: expected a PNG, JPEG or WebP picture, or any other that this browser can show; got something else, or it is broken.`,
    );

  function opened(): void {
    const { naturalWidth: width, naturalHeight: height } = image.current!;
    if (width * height > MOST_MEGAPIXELS * 1e6)
      return onProblem(
        `${file.name}: expected at most ${MOST_MEGAPIXELS} megapixels; got ${Math.round((width * height) / 1e6)}. Scale it down and take it again.`,
      );
    setFull({ width, height });
  }

  /** Where a pointer is in the photograph, px of the photograph. */
  function placeOf(event: MouseEvent<HTMLElement>): Point {
    const shown = image.current!.getBoundingClientRect();
    const scale = full!.width / shown.width;
    return { x: (event.clientX - shown.left) * scale, y: (event.clientY - shown.top) * scale };
  }

  return (
    <Box
      position="relative"
      flex="1"
      minH="0"
      bg="mat"
      display="flex"
      justifyContent="center"
      alignItems="center"
      overflow="hidden"
    >
      <chakra.img
        ref={show}
        alt={alt}
        maxW="100%"
        maxH="100%"
        cursor={onCorner ? 'crosshair' : 'default'}
        draggable={false}
        onLoad={opened}
        onError={broken}
        onPointerMove={(e: PointerEvent<HTMLImageElement>) =>
          full && setAt({ ...placeOf(e), url: e.currentTarget.src })
        }
        onPointerLeave={() => setAt(undefined)}
        onClick={(e: MouseEvent<HTMLImageElement>) => full && onCorner?.(placeOf(e))}
      />
      {full && frame && <CornerMarks corners={corners} frame={frame} full={full} />}
      {full && at && onCorner && <Loupe at={at} full={full} />}
    </Box>
  );
}
