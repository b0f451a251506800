'use server';

import { revalidatePath } from 'next/cache';
import type { ActionResult } from '@/application/action-result';
import * as drills from '@/application/drills/drills';
import { settle, type Settled } from '@/application/once';
import { arg, taking } from '@/application/taking';
import { database } from '@/db/client';

export const beginDrill = taking([arg.any, arg.key], async (drill: unknown, key: string): Promise<ActionResult> =>
  drills.beginDrill(await database(), drill, key),
);

/** Begins the tour of the program: the first drill, on a practice board where the shop has none. */
export const beginTour = taking([arg.key], async (key: string): Promise<ActionResult> =>
  drills.beginTour(await database(), key),
);

export const takeDrillLine = taking(
  [arg.number, arg.text, arg.key],
  async (id: number, text: string, key: string): Promise<ActionResult> => {
    const answer = await drills.takeDrillLine(await database(), id, text, key);
    if (answer.saved) revalidatePath('/drills', 'layout');
    return answer;
  },
);

export const settleDrillLine = taking(
  [arg.key],
  async (key: string): Promise<Settled> => settle(await database(), key),
  (answer) => ({ known: true, answer }),
);
