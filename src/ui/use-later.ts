'use client';

import { useEffect, useState } from 'react';

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
