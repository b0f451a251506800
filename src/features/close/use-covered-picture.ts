'use client';

import { useRef, useState, type PointerEvent } from 'react';
import { maskPixels, type Mask } from '@/core/picture';

/** Pictures are kept no larger: a sheet shows no more. */
const MOST_SIDE_PX = 1600;
const QUALITY = 0.85;
/** A press without a drag is no mask. */
const LEAST_PX = 4;

interface Opened {
  /** As it came, scaled down: it never leaves the browser. */
  readonly pixels: ImageData;
  readonly name: string;
}

/** A picture on a canvas, with what is covered of it: only the covered one is ever handed out. */
export function useCoveredPicture() {
  const canvas = useRef<HTMLCanvasElement>(null);
  const from = useRef<{ x: number; y: number } | undefined>(undefined);
  const [opened, setOpened] = useState<Opened>();
  const [masks, setMasks] = useState<readonly Mask[]>([]);

  function draw(pixels: ImageData, covered: readonly Mask[]): void {
    const shown = new ImageData(new Uint8ClampedArray(pixels.data), pixels.width, pixels.height);
    maskPixels(shown.data, pixels.width, covered);
    canvas.current!.getContext('2d')!.putImageData(shown, 0, 0);
  }
  function cover(next: readonly Mask[]): void {
    setMasks(next);
    if (opened) draw(opened.pixels, next);
  }
  /** @returns what is wrong with the file; undefined where it is shown. */
  async function open(file: File): Promise<string | undefined> {
    try {
      const bitmap = await createImageBitmap(file);
      const scale = Math.min(1, MOST_SIDE_PX / Math.max(bitmap.width, bitmap.height));
      const [width, height] = [Math.round(bitmap.width * scale), Math.round(bitmap.height * scale)];
      const sheet = new OffscreenCanvas(width, height).getContext('2d')!;
      sheet.drawImage(bitmap, 0, 0, width, height);
      const pixels = sheet.getImageData(0, 0, width, height);
      setOpened({ pixels, name: file.name });
      setMasks([]);
      Object.assign(canvas.current!, { width, height });
      draw(pixels, []);
      return undefined;
    } catch {
      return `${file.name}: expected a picture that this browser can show; got something else.`;
    }
  }
  const placeOf = (e: PointerEvent<HTMLCanvasElement>): { x: number; y: number } => {
    const box = e.currentTarget.getBoundingClientRect();
    const scale = e.currentTarget.width / box.width;
    return { x: Math.round((e.clientX - box.left) * scale), y: Math.round((e.clientY - box.top) * scale) };
  };
  function release(e: PointerEvent<HTMLCanvasElement>): void {
    if (!from.current) return;
    const [a, b] = [from.current, placeOf(e)];
    from.current = undefined;
    const mask = {
      ...{ x: Math.min(a.x, b.x), y: Math.min(a.y, b.y) },
      ...{ width: Math.abs(a.x - b.x), height: Math.abs(a.y - b.y) },
    };
    if (mask.width >= LEAST_PX && mask.height >= LEAST_PX) cover([...masks, mask]);
  }
  /** A quarter of the picture's sides, from its corner: to be moved by figures. */
  function coverAnother(): void {
    const { width = 0, height = 0 } = opened?.pixels ?? {};
    cover([...masks, { x: 0, y: 0, width: Math.round(width / 4), height: Math.round(height / 4) }]);
  }
  const covered = async (): Promise<File> => {
    const blob = await new Promise<Blob | null>((resolve) => canvas.current!.toBlob(resolve, 'image/jpeg', QUALITY));
    return new File([blob!], 'masked.jpg', { type: 'image/jpeg' });
  };
  const close = (): void => setOpened(undefined);
  const press = (e: PointerEvent<HTMLCanvasElement>): void => void (from.current = placeOf(e));
  return { canvas, isOpen: opened !== undefined, masks, open, close, cover, coverAnother, covered, press, release };
}
