'use client';

import { useEffect, useState } from 'react';

type Grammar = typeof import('./grammar');

/** The grammar of the entry line, once it is here; without it lines go to the server all the same. */
export function useGrammar(): Grammar | undefined {
  const [grammar, setGrammar] = useState<Grammar>();
  useEffect(() => {
    let left = false;
    import('./grammar').then(
      (got) => !left && setGrammar(got),
      () => undefined,
    );
    return () => {
      left = true;
    };
  }, []);
  return grammar;
}
