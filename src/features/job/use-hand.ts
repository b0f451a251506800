'use client';

import { useCallback, useEffect, useRef, useState, useSyncExternalStore } from 'react';
import { entryStem, meterReads, type Measurement } from '@/core/diagnose';
import type { Board } from '@/core/board';
import { bench, takeSafely, type Connected } from '@/devices/instruments';
import { useEntryOffer, useEntryPedal } from '@/ui';

const NONE: readonly Connected[] = [];

/** The real instruments of this bench, and again whenever one comes, goes or is lost. */
export const useBench = (): readonly Connected[] => useSyncExternalStore(bench.subscribe, bench.list, () => NONE);

export interface Hand {
  /** What the meter shows while a reading settles; Infinity for an open input. */
  readonly shown?: number;
  readonly taking: boolean;
  readonly problem?: string;
  readonly take: () => void;
}

/**
 * The meter in hand and the reading that is due: taken by the pedal, kept only when it is settled and safe.
 * @param onEnd told what was taken; undefined where nothing could be.
 */
export function useHand(board: Board, due: Measurement | undefined, onEnd: (value: number | undefined) => void): Hand {
  const connected = useBench();
  const { offerText } = useEntryOffer();
  const [shown, setShown] = useState<number>();
  const [taking, setTaking] = useState(false);
  const [problem, setProblem] = useState<string>();
  const isTaking = useRef(false);
  const ended = useRef(onEnd);
  useEffect(() => {
    ended.current = onEnd;
  });
  const quantity = due && meterReads(due);
  const meter = connected.findLast((c) => c.meter && !c.isLost);

  const read = useCallback(async (): Promise<void> => {
    if (!due || !quantity || !meter?.meter || isTaking.current) return;
    isTaking.current = true;
    setTaking(true);
    setProblem(undefined);
    const refuse = (words: string): void => {
      setProblem(words);
      ended.current(undefined);
    };
    try {
      const taken = await takeSafely(quantity, bench.sources(), () => meter.meter!.settled(quantity, setShown));
      if ('refused' in taken) return refuse(taken.refused);
      const { value } = taken;
      setShown(value);
      ended.current(value);
      const figure = Number.isFinite(value) ? String(Number(value.toPrecision(4))) : 'ol';
      const origin = { kind: 'instrument', identification: meter.name } as const;
      offerText(`${entryStem(board, due)}${figure}`, { take: true, origin });
    } catch (error) {
      refuse((error as Error).message);
    } finally {
      isTaking.current = false;
      setTaking(false);
    }
  }, [board, due, quantity, meter, offerText]);
  const take = useCallback(() => void read(), [read]);
  useEntryPedal(quantity && meter ? take : undefined);
  // A figure is of the place where it was read.
  const place = due && entryStem(board, due);
  const [shownAt, setShownAt] = useState(place);
  if (shownAt !== place && !taking) {
    setShownAt(place);
    setShown(undefined);
  }
  useSafeLeaving();
  return { shown, taking, problem, take };
}

/** Nobody who leaves the program leaves a board under power. */
function useSafeLeaving(): void {
  useEffect(() => {
    const off = (): void => void bench.allOff();
    addEventListener('pagehide', off);
    return () => removeEventListener('pagehide', off);
  }, []);
}
