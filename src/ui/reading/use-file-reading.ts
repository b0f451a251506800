'use client';

import { useState } from 'react';
import { problemLine, type FileReader, type ReadFile, type ReadOutcome } from './file-reader';

export interface OpenReading<T> {
  readonly file: { readonly name: string };
  readonly answers: Readonly<Record<string, string>>;
  readonly outcome: Extract<ReadOutcome<T>, { kind: 'understood' }>;
}

export interface FileReading<T> {
  /** What waits for answers. */
  readonly open?: OpenReading<T>;
  /** What was guessed of the file that was read last. */
  readonly notes: readonly string[];
  readonly take: (file: File) => Promise<void>;
  readonly answer: (id: string, value: string) => void;
  readonly drop: () => void;
}

interface FileReadingProps<T> {
  readonly reader: FileReader<T>;
  readonly onRead: (value: T, file: ReadFile, answers: Readonly<Record<string, string>>) => void;
  /** One sentence, or nothing once a file is read. */
  readonly onProblem: (sentence: string | undefined) => void;
}

/**
 * Reads a file that was picked: what it holds is handed on once nothing is open, and its questions are kept until they are
 * answered. Nothing is handed on of a file that is dropped.
 */
export function useFileReading<T>({ reader, onRead, onProblem }: FileReadingProps<T>): FileReading<T> {
  const [open, setOpen] = useState<OpenReading<T> & { readonly file: ReadFile }>();
  const [notes, setNotes] = useState<readonly string[]>([]);

  function read(file: ReadFile, answers: Readonly<Record<string, string>>): void {
    const outcome = reader.read(file, answers);
    if (outcome.kind === 'refused') {
      setOpen(undefined);
      return onProblem(`${file.name}: ${problemLine(outcome)}`);
    }
    onProblem(undefined);
    setNotes(outcome.notes.map((note) => `${file.name}: ${note}`));
    if (outcome.value === undefined) return setOpen({ file, answers, outcome });
    setOpen(undefined);
    onRead(outcome.value, file, answers);
  }

  return {
    open,
    notes,
    take: async (file) => {
      setOpen(undefined);
      setNotes([]);
      if (file.size > reader.mostBytes)
        return onProblem(
          `${file.name}: expected ${reader.title} of at most ${Math.round(reader.mostBytes / 1e6)} MB; got ${(file.size / 1e6).toFixed(0)} MB.`,
        );
      if (file.size === 0) return onProblem(`${file.name}: expected ${reader.title}; got an empty file.`);
      read({ name: file.name, bytes: new Uint8Array(await file.arrayBuffer()) }, {});
    },
    answer: (id, value) => {
      if (open) read(open.file, { ...open.answers, [id]: value });
    },
    drop: () => setOpen(undefined),
  };
}
