'use client';

import { createContext, useCallback, useContext, useMemo, useState, type ReactNode } from 'react';

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
  // What was kept since the server's list came: the next file may be dropped before a newer list does.
  const [since, setSince] = useState<{ readonly list: readonly Preset[]; readonly kept: readonly Preset[] }>();
  const keep = useCallback(
    async (preset: Preset) => {
      const told = await onKeep(preset);
      if (told.saved)
        setSince((now) => ({ list: presets, kept: [...(now?.list === presets ? now.kept : []), preset] }));
      return told;
    },
    [presets, onKeep],
  );
  const value = useMemo(() => {
    const kept = since?.list === presets ? since.kept : [];
    const isNewer = ({ name }: Preset): boolean => kept.some((k) => k.name === name);
    return { presets: [...presets.filter((p) => !isNewer(p)), ...kept], onKeep: keep };
  }, [presets, since, keep]);
  return <FilePresetsContext value={value}>{children}</FilePresetsContext>;
}

export const useFilePresets = (): FilePresets => useContext(FilePresetsContext);
