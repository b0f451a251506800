'use client';

import { useEffect, useRef, useState, type KeyboardEvent, type RefObject } from 'react';

/** A command that one key gives while the line is empty. Letters are typed with Shift, so that entries stay free. */
export interface EntryCommand {
  readonly key: string;
  readonly label: string;
  readonly run?: () => void;
  /** What it asks for next, by one key. */
  readonly choices?: readonly { readonly key: string; readonly label: string; readonly run: () => void }[];
  /** Listed with the keys only, not at the right of the line. */
  readonly quiet?: boolean;
}

type PressedKey = Pick<KeyboardEvent, 'key' | 'shiftKey' | 'getModifierState'>;

/** The commands of an entry line by their keys: the one that asks which, and the list of all. */
export function useCommandKeys(commands: readonly EntryCommand[]) {
  const [menu, setMenu] = useState<EntryCommand>();
  const [showKeys, setShowKeys] = useState(false);

  /** Commands act while the line is empty, so that no entry is ever mistaken for one. */
  function command(event: PressedKey): boolean {
    if (event.key === '?') {
      setShowKeys((on) => !on);
      return true;
    }
    const letter = /^[a-z]$/i.test(event.key);
    if (letter && (!event.shiftKey || event.getModifierState('CapsLock'))) return false;
    const found = commands.find((c) => c.key === event.key.toUpperCase() || c.key === event.key);
    if (found?.choices) setMenu(found);
    else found?.run?.();
    return found !== undefined;
  }

  /** While a command asks which: one key answers, any other closes it. */
  function choose(event: Pick<KeyboardEvent, 'key'>): boolean {
    if (!menu?.choices || event.key === 'Shift') return false;
    setMenu(undefined);
    menu.choices.find((c) => c.key === event.key)?.run();
    return true;
  }

  return { menu, setMenu, showKeys, setShowKeys, command, choose };
}

interface TypedAnywhere {
  readonly input: RefObject<HTMLInputElement | null>;
  readonly pedalRef: RefObject<(() => void) | undefined>;
  /** True where the key was a command's. */
  readonly onKey: (event: globalThis.KeyboardEvent) => boolean;
}

/** Typing anywhere lands in the line: the hand need not find it first. */
export function useTypingAnywhere({ input, pedalRef, onKey }: TypedAnywhere): void {
  const latest = useRef(onKey);
  useEffect(() => {
    latest.current = onKey;
  });
  useEffect(() => {
    function catchKey(event: globalThis.KeyboardEvent): void {
      const target = event.target as HTMLElement;
      if (event.key === 'F9' && target !== input.current) {
        // The foot knows nothing of the focus.
        event.preventDefault();
        if (pedalRef.current && input.current?.value === '') pedalRef.current();
        return input.current?.focus();
      }
      const elsewhere = target.closest('input, textarea, select, button, a, [role="slider"], dialog');
      if (elsewhere || event.ctrlKey || event.metaKey || event.altKey) return;
      if (event.key.length !== 1 && event.key !== 'Enter') return;
      input.current?.focus();
      if (input.current?.value === '' && latest.current(event)) event.preventDefault();
    }
    window.addEventListener('keydown', catchKey);
    return () => window.removeEventListener('keydown', catchKey);
  }, [input, pedalRef]);
}
