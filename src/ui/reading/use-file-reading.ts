'use client';

import { useState } from 'react';
import { useFilePresets, type Preset } from './file-presets';
import { problemLine, type FileReader, type ReadFile, type ReadOutcome } from './file-reader';

type Answers = Readonly<Record<string, string>>;

export interface OpenReading<T> {
  readonly file: { readonly name: string };
  readonly answers: Answers;
  readonly outcome: Extract<ReadOutcome<T>, { kind: 'understood' }>;
}

export interface FileReading<T> {
  /** What waits for answers. */
  readonly open?: OpenReading<T>;
  /** What was guessed of the file that was read last. */
  readonly notes: readonly string[];
  /** What was answered of the file that was read last, to be kept for files like it; nameless until a person names it. */
  readonly preset?: Omit<Preset, 'name'>;
  readonly take: (file: File) => Promise<void>;
  readonly answer: (id: string, value: string) => void;
  readonly drop: () => void;
}

interface FileReadingProps<T> {
  readonly reader: FileReader<T>;
  readonly onRead: (value: T, file: ReadFile, answers: Answers) => void;
  /** One sentence, or nothing once a file is read. */
  readonly onProblem: (sentence: string | undefined) => void;
}

/**
 * Reads a file that was picked: what it holds is handed on once nothing is open, and its questions are kept until they are
 * answered. What was said before of files that look the same answers by itself. Nothing is handed on of a file that is dropped.
 */
export function useFileReading<T>({ reader, onRead, onProblem }: FileReadingProps<T>): FileReading<T> {
  const { presets } = useFilePresets();
  const [open, setOpen] = useState<OpenReading<T> & { readonly file: ReadFile }>();
  const [notes, setNotes] = useState<readonly string[]>([]);
  const [preset, setPreset] = useState<Omit<Preset, 'name'>>();

  async function read(file: ReadFile, answers: Answers, known?: Preset): Promise<void> {
    const outcome = await reader.read(file, answers);
    if (outcome.kind === 'refused') {
      setOpen(undefined);
      return onProblem(`${file.name}: ${problemLine(outcome)}`);
    }
    const { signature, value } = outcome;
    const isNew = Object.keys(answers).length === 0 && outcome.questions.length > 0;
    const before = isNew ? presets.find((p) => p.reader === reader.id && p.signature === signature) : undefined;
    if (before) return read(file, before.answers, before);
    onProblem(undefined);
    const said = known ? [`${file.name} is read as the files of ${known.name}.`] : [];
    setNotes([...said, ...outcome.notes.map((note) => `${file.name}: ${note}`)]);
    if (value === undefined) return setOpen({ file, answers, outcome });
    setOpen(undefined);
    const answered = !known && reader.id !== undefined && signature !== undefined && Object.keys(answers).length > 0;
    setPreset(answered ? { reader: reader.id!, signature: signature!, answers } : undefined);
    onRead(value, file, answers);
  }

  return {
    open,
    notes,
    preset,
    take: async (file) => {
      setOpen(undefined);
      setNotes([]);
      setPreset(undefined);
      if (file.size > reader.mostBytes)
        return onProblem(
          `${file.name}: expected ${reader.title} of at most ${Math.round(reader.mostBytes / 1e6)} MB; got ${(file.size / 1e6).toFixed(0)} MB.`,
        );
      if (file.size === 0) return onProblem(`${file.name}: expected ${reader.title}; got an empty file.`);
      await read({ name: file.name, bytes: new Uint8Array(await file.arrayBuffer()) }, {});
    },
    answer: (id, value) => {
      if (open) void read(open.file, { ...open.answers, [id]: value });
    },
    drop: () => setOpen(undefined),
  };
}
