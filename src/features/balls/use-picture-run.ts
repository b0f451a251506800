import { useEffect, useRef, useState } from 'react';
import type { Specimen } from '@/devices/microscope';
import { inspectInWorker } from '@/workers/inspect/client';
import type { InspectReply, InspectRequest } from '@/workers/inspect/protocol';

import { simulatedPicture } from './picture-source';

export type SeenReply = Extract<InspectReply, { kind: 'seen' | 'padsSeen' }>;

interface PictureRunProps {
  readonly look: (picture: File) => InspectRequest;
  readonly take: (specimen: Specimen) => InspectRequest;
  readonly onBegin: () => void;
  readonly onSeen: (reply: SeenReply, file: File) => void;
}

/** A picture looked over in a worker, from a file or taken first by the simulated microscope. */
export function usePictureRun({ look, take, onBegin, onSeen }: PictureRunProps) {
  const [problem, setProblem] = useState<string>();
  const [busy, setBusy] = useState(false);
  const [tookMs, setTookMs] = useState<number>();
  const cancel = useRef(() => {});
  useEffect(() => () => cancel.current(), []);

  async function ask(request: InspectRequest) {
    setBusy(true);
    setProblem(undefined);
    onBegin();
    const run = inspectInWorker(request);
    cancel.current = run.cancel;
    const reply = await run.answer;
    setBusy(false);
    if (reply.kind === 'problem') setProblem(reply.message);
    return reply;
  }
  async function lookAt(file: File): Promise<void> {
    const reply = await ask(look(file));
    if (reply.kind !== 'seen' && reply.kind !== 'padsSeen') return;
    setTookMs(reply.tookMs);
    onSeen(reply, file);
  }
  async function takeOne(specimen: Specimen): Promise<void> {
    const reply = await ask(take(specimen));
    if (reply.kind === 'taken')
      await lookAt(simulatedPicture(new File([reply.picture], `microscope ${specimen}.png`, { type: 'image/png' })));
  }
  return { problem, busy, tookMs, lookAt, take: takeOne };
}
