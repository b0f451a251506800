'use client';

import { createContext, useContext, useMemo, type ReactNode } from 'react';

/** What was said once of an instrument's files. */
export interface Preset {
  readonly name: string;
  readonly reader: string;
  /** What files of the instrument have in common. */
  readonly signature: string;
  readonly answers: Readonly<Record<string, string>>;
}

interface FilePresets {
  readonly presets: readonly Preset[];
  readonly onKeep: (preset: Preset) => Promise<{ readonly saved: boolean; readonly message: string }>;
}

const FilePresetsContext = createContext<FilePresets>({
  presets: [],
  onKeep: () => Promise.resolve({ saved: false, message: 'Nothing is kept here.' }),
});

/** What this bench has said of its instruments' files, and the way to say it of one more. */
export function FilePresetsProvider({ presets, onKeep, children }: FilePresets & { readonly children: ReactNode }) {
  const value = useMemo(() => ({ presets, onKeep }), [presets, onKeep]);
  return <FilePresetsContext value={value}>{children}</FilePresetsContext>;
}

export const useFilePresets = (): FilePresets => useContext(FilePresetsContext);
