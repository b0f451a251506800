'use client';

import { useState } from 'react';

/** So many lines of a name can be recalled in a tab. */
const MOST_RECALLED = 50;

function recalled(name: string): string[] {
  try {
    return JSON.parse(sessionStorage.getItem(`entries ${name}`) ?? '[]') as string[];
  } catch {
    return [];
  }
}

interface Completing {
  /** Keeps recalled lines apart, for example by job. */
  readonly name: string;
  /** Undefined while it is not known yet. */
  readonly complete: (text: string) => readonly string[] | undefined;
  readonly applyCompletion: (text: string, completion: string) => string;
}

/** The text of an entry line: completed by what can follow, recalled from what was kept in this tab. */
export function useEntryText({ name, complete, applyCompletion }: Completing) {
  const [text, setText] = useState('');
  const [recall, setRecall] = useState(0);
  const completions = text.trim() ? complete(text) : [];
  // Asked for before it was known what could follow: taken as soon as it is, unless the line has changed.
  const [tabAt, setTabAt] = useState<string>();
  if (tabAt !== undefined && completions) {
    setTabAt(undefined);
    if (tabAt === text && completions.length > 0) setText(applyCompletion(text, completions[0]));
  }

  function takeCompletion(): void {
    if (completions) setText(applyCompletion(text, completions[0]));
    else setTabAt(text);
  }

  function step(by: number): void {
    const lines = recalled(name);
    const at = Math.min(lines.length, Math.max(0, recall + by));
    setRecall(at);
    setText(at === 0 ? '' : lines[lines.length - at]);
  }

  /** A line that was kept or answered: it can be recalled, and the next one begins. */
  function remember(line: string): void {
    sessionStorage.setItem(`entries ${name}`, JSON.stringify([...recalled(name), line].slice(-MOST_RECALLED)));
    setText('');
    setRecall(0);
  }

  return { text, setText, completions, takeCompletion, step, remember };
}
