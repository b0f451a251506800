import { useEffect, useState } from 'react';
import type { Side } from '@/core/board';
import { LAND_PATTERNS } from '@/core/sketch';
import { bodiesTask } from '@/workers/straighten/task';
import type { BodyOnBoard, EditorPhoto } from './editing';

/** What a photograph is looked over for; land patterns and their names. */
const CHOICES = LAND_PATTERNS.filter((p) => p.seen).map(({ name, package: pkg }) => ({ name, package: pkg }));

/** What looks like parts in a board's photographs; looked over once for each photograph. */
export function useBodies(photos: readonly EditorPhoto[], widthMm: number): readonly BodyOnBoard[] {
  const [found, setFound] = useState<Readonly<Record<string, readonly BodyOnBoard[]>>>({});
  // Photographs are told apart by their bytes.
  const wanted = photos.map((p) => `${p.side} ${p.sha256}`).join(',');
  useEffect(() => {
    const runs = wanted
      .split(',')
      .filter(Boolean)
      .map((name) => {
        const [side, sha256] = name.split(' ') as [Side, string];
        const run = bodiesTask.start({ href: `/pictures/${sha256}`, widthMm, choices: CHOICES });
        void run.answer.then((reply) => {
          if (reply.kind !== 'done') return;
          // The back is photographed from behind.
          const bodies = reply.value.map((b) => ({ ...b, side, xMm: side === 'back' ? widthMm - b.xMm : b.xMm }));
          setFound((before) => ({ ...before, [side]: bodies }));
        });
        return run;
      });
    return () => runs.forEach((run) => run.cancel());
  }, [wanted, widthMm]);
  return Object.values(found).flat();
}
