'use client';

import { useSyncExternalStore } from 'react';
import { playNotes, type Note } from '@/ui';

/** What a reading said, for ears: eyes are at the microscope. */
export type HeardVerdict = 'good' | 'plain' | 'bad' | 'refused';

/** Told apart by height and by number, for ears that hear one of both badly. Common practice, no source. */
const NOTES: Readonly<Record<HeardVerdict, readonly Note[]>> = {
  good: [{ hz: 880, seconds: 0.12 }],
  plain: [{ hz: 587, seconds: 0.12 }],
  bad: [
    { hz: 330, seconds: 0.14 },
    { hz: 330, seconds: 0.14 },
  ],
  refused: [{ hz: 196, seconds: 0.5 }],
};

const SETTING = 'verdict-tones';
const listeners = new Set<() => void>();
const subscribe = (changed: () => void): (() => void) => {
  listeners.add(changed);
  return () => listeners.delete(changed);
};

function isKeptOn(): boolean {
  try {
    return localStorage.getItem(SETTING) !== 'off';
  } catch {
    return true;
  }
}

function toggle(): void {
  localStorage.setItem(SETTING, isKeptOn() ? 'off' : 'on');
  listeners.forEach((changed) => changed());
}

const sound = (verdict: HeardVerdict): void => {
  if (isKeptOn()) playNotes(NOTES[verdict]);
};

/** A tone by verdict for what a meter's reading said; on until this bench switches it off. */
export function useVerdictTones() {
  const on = useSyncExternalStore(subscribe, isKeptOn, () => true);
  return { on, toggle, sound };
}
