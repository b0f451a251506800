import { useState } from 'react';
import type { Origin } from '@/core/job';
import type { CaptureReading } from '@/core/usb';
import type { FileReading } from '@/ui';
import { captureTask } from '@/workers/capture/task';
import { useWorkerTask } from '@/workers/use-worker-task';
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
  const { status, start, cancel } = useWorkerTask(captureTask);
  const [waiting, setWaiting] = useState<Waiting>();
  const [notes, setNotes] = useState<readonly string[]>([]);

  async function decode(file: File, simulated: boolean, answers: Readonly<Record<string, string>>): Promise<void> {
    onProblem(undefined);
    setWaiting(undefined);
    setNotes([]);
    const reply = await start({ file, name: file.name, answers });
    if (reply.kind === 'problem') return onProblem(`${file.name}: ${reply.message}`);
    if (reply.kind !== 'done') return;
    const { reading: read, questions, notes: said } = reply.value;
    if (!read) {
      const outcome = { kind: 'understood' as const, questions, notes: said };
      return setWaiting({ file, simulated, open: { file, answers, outcome } });
    }
    if (!simulated) setNotes(said.map((note) => `${file.name}: ${note}`));
    const by = 'simulated conversation';
    await onRead(file.name, read, simulated ? { kind: 'simulated', by } : await originOfFile(file, 'capture', answers));
  }

  const reading: FileReading<CaptureReading> = {
    open: waiting?.open,
    notes,
    take: (file) => decode(file, false, {}),
    answer: (id, value) =>
      void (waiting && decode(waiting.file, waiting.simulated, { ...waiting.open.answers, [id]: value })),
    drop: () => setWaiting(undefined),
  };
  const share = status.kind === 'running' ? (status.progress ?? 0) : undefined;
  return { share, cancel, reading, take: (file: File, simulated = false) => decode(file, simulated, {}) };
}
