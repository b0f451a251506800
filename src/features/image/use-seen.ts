import { useEffect, useState } from 'react';
import type { FoundChecksum } from '@/core/checksum';
import type { ImageFamily } from '@/core/image';
import { compareTask, type SeenImages } from '@/workers/compare/task';

/** An image to look at: kept here, or a file of the person's own that never leaves the browser. */
export interface ImageSource {
  readonly name: string;
  /** SHA-256 of a kept one, or the file. */
  readonly from: string | File;
}

export interface Looking {
  /** What was seen last; it stays while something new is looked at. */
  readonly seen?: SeenImages;
  readonly tookMs?: number;
  /** The sources that `seen` is about. */
  readonly of: readonly ImageSource[];
  readonly progress?: { readonly done: number; readonly message: string };
  readonly problem?: string;
}

export const STRETCHES = 256;

async function contentOf({ from }: ImageSource): Promise<Blob> {
  if (typeof from !== 'string') return from;
  const answer = await fetch(`/images/${from}`);
  if (!answer.ok) throw new Error(`Expected a kept image; the bench has none under ${from.slice(0, 12)}….`);
  return answer.blob();
}

/** Opens images in a worker and lays them against the first; anew whenever the list changes. */
export function useSeen(
  sources: readonly ImageSource[],
  family: ImageFamily | undefined,
  propose?: readonly FoundChecksum[],
): Looking {
  const [looking, setLooking] = useState<Looking>({ of: [] });
  useEffect(() => {
    if (sources.length === 0) return undefined;
    let stop = (): void => {};
    let left = false;
    const told = (more: Partial<Looking>): void => {
      if (!left) setLooking((before) => ({ ...before, progress: undefined, problem: undefined, ...more }));
    };
    Promise.all(sources.map(async (source) => ({ name: source.name, content: await contentOf(source) })))
      .then((files) => {
        if (left) return undefined;
        const run = compareTask.start({ files, family, stretches: STRETCHES, propose }, (progress) =>
          told({ progress }),
        );
        stop = run.cancel;
        return run.answer;
      })
      .then((reply) => {
        if (reply?.kind === 'done') told({ seen: reply.value, tookMs: reply.tookMs, of: sources });
        else if (reply?.kind === 'problem') told({ problem: reply.message });
      })
      .catch((error: unknown) => told({ problem: (error as Error).message }));
    return () => {
      left = true;
      stop();
    };
  }, [sources, family, propose]);
  return looking;
}
