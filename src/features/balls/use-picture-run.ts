import { useState } from 'react';
import type { Specimen } from '@/devices/microscope';
import { lookTask, takeTask, type Look, type LookRequest, type TakeRequest } from '@/workers/inspect/task';
import { useWorkerTask } from '@/workers/use-worker-task';
import { simulatedPicture } from './picture-source';

interface PictureRunProps {
  readonly look: (picture: File) => LookRequest;
  readonly take: (specimen: Specimen) => TakeRequest;
  readonly onBegin: () => void;
  readonly onSeen: (look: Look, file: File) => void;
}

/** A picture looked over in a worker, from a file or taken first by the simulated microscope. */
export function usePictureRun({ look, take, onBegin, onSeen }: PictureRunProps) {
  const [tookMs, setTookMs] = useState<number>();
  const looking = useWorkerTask(lookTask);
  const taking = useWorkerTask(takeTask);

  async function lookAt(file: File): Promise<void> {
    taking.reset();
    onBegin();
    const answer = await looking.start(look(file));
    if (answer.kind !== 'done') return;
    setTookMs(answer.tookMs);
    onSeen(answer.value, file);
  }
  async function takeOne(specimen: Specimen): Promise<void> {
    looking.reset();
    onBegin();
    const answer = await taking.start(take(specimen));
    if (answer.kind === 'done')
      await lookAt(simulatedPicture(new File([answer.value], `microscope ${specimen}.png`, { type: 'image/png' })));
  }
  const all = [taking.status, looking.status];
  const problem = all.find((s) => s.kind === 'problem')?.message;
  return { problem, busy: all.some((s) => s.kind === 'running'), tookMs, lookAt, take: takeOne };
}
