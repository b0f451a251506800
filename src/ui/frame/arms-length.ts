'use client';

import { useEffect, useSyncExternalStore } from 'react';

/** How large everything is drawn, for eyes at the microscope's distance; kept for this bench. */
export const SCALES = [1, 1.25, 1.5, 2, 2.5] as const;
/** In a window that shows fewer pixels of the page than this only the work, what it means, and the entry line stay. */
const FAR_BELOW_PX = 1000;
const KEY = 'scale';

const listeners = new Set<() => void>();
const subscribe = (changed: () => void): (() => void) => {
  listeners.add(changed);
  return () => listeners.delete(changed);
};

function kept(): number {
  try {
    const stored = Number(localStorage.getItem(KEY));
    return SCALES.find((s) => s === stored) ?? 1;
  } catch {
    return 1;
  }
}

function apply(scale: number): void {
  const { style, dataset } = document.documentElement;
  // Lengths grow, the window does not: heights of the window are divided by the same.
  style.setProperty('zoom', String(scale));
  style.setProperty('--scale', String(scale));
  if (scale > 1 && window.innerWidth / scale < FAR_BELOW_PX) dataset.far = '';
  else delete dataset.far;
}

/** The next larger scale, and after the largest the usual one again. */
export function nextScale(): void {
  const scale = SCALES[(SCALES.findIndex((s) => s === kept()) + 1) % SCALES.length];
  localStorage.setItem(KEY, String(scale));
  apply(scale);
  listeners.forEach((changed) => changed());
}

/** The scale of this bench, applied to the page. */
export function useScale(): number {
  const scale = useSyncExternalStore(subscribe, kept, () => 1);
  useEffect(() => apply(scale), [scale]);
  return scale;
}
