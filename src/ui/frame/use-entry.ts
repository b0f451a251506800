'use client';

import { useRef, useState } from 'react';
import type { EntryOrigin } from './entry-offer';

/** What comes back for a line: saved, with its number, or the problem. */
export interface EntryAnswer {
  readonly saved: boolean;
  /** A question was answered: there was nothing to keep. */
  readonly answered?: boolean;
  readonly message: string;
  readonly seq?: number;
}

/** What became of a line whose answer never came. */
export interface EntryFate {
  readonly known: boolean;
  readonly answer: EntryAnswer;
}

export interface EntryDelivery {
  /** Answers when the entry is on disk. The same key again is never kept twice. */
  readonly submit: (text: string, key: string, origin?: EntryOrigin) => Promise<EntryAnswer>;
  /** Finds out what became of an entry; one that is not there is given up. None where nothing is sent anywhere. */
  readonly settle?: (key: string) => Promise<EntryFate>;
}

/** `unknown`: it was sent and no answer came, so that it may be on disk or not; it is being found out. */
export type EntryPhase = 'idle' | 'sending' | 'unknown';

/** Time between two questions what became of an entry, ms. */
const ASK_AGAIN_MS = 1500;
const pause = (ms: number): Promise<void> => new Promise((resolve) => setTimeout(resolve, ms));

/** Sends lines, each under one key until its answer is known, whatever the network does meanwhile. */
export function useEntry({ submit, settle }: EntryDelivery) {
  const [phase, setPhase] = useState<EntryPhase>('idle');
  const busy = useRef(false);

  async function find(key: string): Promise<EntryAnswer> {
    if (!settle) return { saved: false, message: 'Not kept: no answer came. The line is still here; try again.' };
    setPhase('unknown');
    for (;;) {
      try {
        return (await settle(key)).answer;
      } catch {
        await pause(ASK_AGAIN_MS);
      }
    }
  }

  /** @returns what became of the line, once that is known; nothing while another one is under way. */
  async function send(text: string, origin?: EntryOrigin): Promise<EntryAnswer | undefined> {
    if (busy.current) return undefined;
    busy.current = true;
    setPhase('sending');
    const key = crypto.randomUUID();
    try {
      return await submit(text, key, origin).catch(() => find(key));
    } finally {
      busy.current = false;
      setPhase('idle');
    }
  }
  return { phase, send };
}
