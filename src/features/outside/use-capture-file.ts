import { useState } from 'react';
import type { Origin } from '@/core/job';
import type { CaptureReading } from '@/core/usb';
import type { FileReading } from '@/ui';
import { decodeCapture } from '@/workers/capture/client';
import { originOfFile } from './file-origin';

interface CaptureFileProps {
  readonly onProblem: (sentence: string | undefined) => void;
  readonly onRead: (name: string, reading: CaptureReading, origin: Origin) => Promise<void>;
}

interface Waiting {
  readonly file: File;
  readonly simulated: boolean;
  readonly open: NonNullable<FileReading<CaptureReading>['open']>;
}

/** A capture that is decoded in a worker: how far it is, and what it leaves open. */
export function useCaptureFile({ onProblem, onRead }: CaptureFileProps) {
  const [share, setShare] = useState<number>();
  const [cancel, setCancel] = useState<() => void>();
  const [waiting, setWaiting] = useState<Waiting>();
  const [notes, setNotes] = useState<readonly string[]>([]);

  async function decode(file: File, simulated: boolean, answers: Readonly<Record<string, string>>): Promise<void> {
    onProblem(undefined);
    setWaiting(undefined);
    setNotes([]);
    setShare(0);
    const started = decodeCapture({ file, name: file.name, answers }, setShare);
    setCancel(() => started.cancel);
    const reply = await started.answer;
    setShare(undefined);
    if (reply.kind === 'problem') return onProblem(`${file.name}: ${reply.message}`);
    if (reply.kind === 'asked') {
      const outcome = { kind: 'understood' as const, questions: reply.questions, notes: reply.notes };
      return setWaiting({ file, simulated, open: { file, answers, outcome } });
    }
    if (reply.kind !== 'done') return;
    if (!simulated) setNotes(reply.notes.map((note) => `${file.name}: ${note}`));
    const by = 'simulated conversation';
    await onRead(
      file.name,
      reply.reading,
      simulated ? { kind: 'simulated', by } : await originOfFile(file, 'capture', answers),
    );
  }

  const reading: FileReading<CaptureReading> = {
    open: waiting?.open,
    notes,
    take: (file) => decode(file, false, {}),
    answer: (id, value) =>
      void (waiting && decode(waiting.file, waiting.simulated, { ...waiting.open.answers, [id]: value })),
    drop: () => setWaiting(undefined),
  };
  return { share, cancel, reading, take: (file: File, simulated = false) => decode(file, simulated, {}) };
}
