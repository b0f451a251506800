'use client';

import { useCallback, useEffect, useState } from 'react';
import { playNotes } from '@/ui';

const SETTING = 'unisolda-run-voice';
const TONE_HZ = { cue: 880, soon: 587 };
const TONE_S = 0.18;

export interface Voice {
  readonly on: boolean;
  readonly toggle: () => void;
  readonly say: (words: string) => void;
  readonly tone: (kind: keyof typeof TONE_HZ) => void;
}

/** The application's own voice: the browser's speech, and tones. Off until it is switched on; the choice is remembered. */
export function useVoice(): Voice {
  const [on, setOn] = useState(false);
  useEffect(() => {
    // After hydration: the server does not know what this browser remembers.
    // eslint-disable-next-line react-hooks/set-state-in-effect
    setOn(localStorage.getItem(SETTING) === 'on');
  }, []);
  const toggle = useCallback(() => {
    setOn((was) => {
      localStorage.setItem(SETTING, was ? 'off' : 'on');
      if (was) window.speechSynthesis?.cancel();
      return !was;
    });
  }, []);
  const say = useCallback(
    (words: string) => {
      if (!on || !window.speechSynthesis) return;
      window.speechSynthesis.cancel();
      window.speechSynthesis.speak(new SpeechSynthesisUtterance(words));
    },
    [on],
  );
  const tone = useCallback(
    (kind: keyof typeof TONE_HZ) => {
      if (on) playNotes([{ hz: TONE_HZ[kind], seconds: TONE_S }]);
    },
    [on],
  );
  return { on, toggle, say, tone };
}
