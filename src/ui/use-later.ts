'use client';

import { useEffect, useState } from 'react';

/** Begins to load in the browser at once, beside the page rather than after it, and gives the same from then on. */
export function inBrowser<T>(load: () => Promise<T>): () => Promise<T> {
  const begun = typeof window === 'undefined' ? undefined : load();
  // Who needs it hears of what went wrong; until then nobody has to.
  begun?.catch(() => undefined);
  return () => begun ?? load();
}

/**
 * What comes after the page: undefined until then, and where it cannot be had.
 * @param load the same function on every call.
 */
export function useLater<T>(load: () => Promise<T>): T | undefined {
  const [loaded, setLoaded] = useState<T>();
  useEffect(() => {
    let left = false;
    load().then(
      (got) => !left && setLoaded(() => got),
      () => undefined,
    );
    return () => {
      left = true;
    };
  }, [load]);
  return loaded;
}
