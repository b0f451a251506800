'use client';

import { createContext, useContext, useMemo, useState, type ReactNode } from 'react';
import type { HeatAnswerOf } from './use-heat-run';

interface Shown {
  /** The shown moment, seconds. */
  readonly atS: number;
  /** Where the run ends, seconds. */
  readonly endS: number;
  readonly setAtS: (atS: number) => void;
}

const PlaybackContext = createContext<Shown>({ atS: 0, endS: 0, setAtS: () => {} });

/** The shown moment of a run. It stands apart from the plan, so that playing draws only what shows a moment. */
export const usePlayback = (): Shown => useContext(PlaybackContext);

/** @param last the run that is shown; until a moment is chosen, the one at which the hand acts. */
export function Playback({ last, children }: { readonly last?: HeatAnswerOf; readonly children: ReactNode }) {
  const [chosenS, setAtS] = useState<number>();
  const endS = last ? last.run.timesS[last.run.timesS.length - 1] : 0;
  const atS = Math.min(chosenS ?? last?.verdict.actAtS ?? endS, endS);
  const value = useMemo(() => ({ atS, endS, setAtS }), [atS, endS]);
  return <PlaybackContext value={value}>{children}</PlaybackContext>;
}
