'use client';

import { useCallback, useEffect, useRef, useState } from 'react';
import type { KeepEvent } from '@/core/job';
import type { RunEvent } from '@/core/run';

/** How soon what did not get there is sent again. */
const AGAIN_MS = 1500;

/** Problems of the disk that pass. */
const PASSING = new Set(['busy', 'full', 'readOnly']);

/**
 * Sends presses in their order; the hand does not wait for the disk. What does not get there is sent again under the same
 * key, so that it is stored once.
 */
export function useOutbox(
  number: number,
  onKeep: KeepEvent,
): { readonly send: (body: RunEvent) => void; readonly waiting: boolean; readonly problem?: string } {
  const unsent = useRef<{ readonly body: RunEvent; readonly key: string }[]>([]);
  const busy = useRef(false);
  const [waiting, setWaiting] = useState(false);
  const [problem, setProblem] = useState<string>();
  const flush = useCallback(async () => {
    if (busy.current) return;
    busy.current = true;
    for (let first = unsent.current[0]; first; first = unsent.current[0]) {
      const answer = await onKeep(number, first.body, first.key).catch(() => undefined);
      if (!answer) {
        setProblem('Not kept yet: the bench’s server does not answer. The run goes on here, and is kept once it does.');
        break;
      }
      setProblem(answer.saved ? undefined : `Not kept: ${answer.message}`);
      // What the disk could not take goes again, in its order; what the record refuses does not.
      if (!answer.saved && PASSING.has(answer.code ?? '')) break;
      unsent.current.shift();
    }
    busy.current = false;
    setWaiting(unsent.current.length > 0);
  }, [number, onKeep]);
  useEffect(() => {
    if (!waiting) return;
    const timer = setInterval(() => void flush(), AGAIN_MS);
    return () => clearInterval(timer);
  }, [waiting, flush]);
  const send = useCallback(
    (body: RunEvent) => {
      unsent.current.push({ body, key: crypto.randomUUID() });
      setWaiting(true);
      void flush();
    },
    [flush],
  );
  return { send, waiting, problem };
}
