'use client';

import { useCallback, useEffect, useRef, useState } from 'react';

export interface Pedal {
  readonly key: string;
  readonly learning: boolean;
  readonly learn: () => void;
  readonly taught: (key: string) => void;
}

const PEDAL = 'unisolda-pedal';
const USUAL_PEDAL = 'F9';

/** The foot pedal sends one key; which one is the bench's to set. */
export function usePedal(): Pedal {
  const [key, setKey] = useState(USUAL_PEDAL);
  const [learning, setLearning] = useState(false);
  useEffect(() => {
    // After hydration: the server does not know what this browser remembers.
    // eslint-disable-next-line react-hooks/set-state-in-effect
    setKey(localStorage.getItem(PEDAL) ?? USUAL_PEDAL);
  }, []);
  const taught = (next: string): void => {
    localStorage.setItem(PEDAL, next);
    setKey(next);
    setLearning(false);
  };
  return { key, learning, learn: () => setLearning(true), taught };
}

/** Held so long, the pedal says that nothing moves, ms. Engineering estimate. */
const HOLD_MS = 800;

/** A press that goes on when it is let go, and says something else when it is held. */
export function useHold(
  onPress: () => void,
  onHeld: () => void,
): { readonly down: () => void; readonly up: () => void } {
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined);
  const acts = useRef({ onPress, onHeld });
  useEffect(() => {
    acts.current = { onPress, onHeld };
  });
  useEffect(() => () => clearTimeout(timer.current), []);
  const up = useCallback((): void => {
    if (timer.current === undefined) return;
    clearTimeout(timer.current);
    timer.current = undefined;
    acts.current.onPress();
  }, []);
  const down = useCallback((): void => {
    clearTimeout(timer.current);
    timer.current = setTimeout(() => {
      timer.current = undefined;
      acts.current.onHeld();
    }, HOLD_MS);
  }, []);
  return { down, up };
}
