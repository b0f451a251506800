'use server';

import { revalidatePath } from 'next/cache';
import { z } from 'zod';
import type { ActionResult } from '@/application/action-result';
import * as jobs from '@/application/jobs/execute';
import { loadInstruments } from '@/application/instruments/setting';
import { settle, type Settled } from '@/application/once';
import type { EntryMode, EventBody, Origin } from '@/core/job';
import { arg, taking } from '@/application/taking';
import { database } from '@/db/client';
import type { InstrumentDefinition } from '@/devices/instruments';

const shown = async (answer: Promise<ActionResult>): Promise<ActionResult> => {
  const result = await answer;
  if (result.saved) revalidatePath('/jobs/[number]', 'layout');
  return result;
};

/** Reads a typed line again on the server, stores it, and answers when it is on disk. */
export const enterLine = taking(
  [arg.number, arg.text, z.enum(['ohm', 'volt']), arg.key, arg.object<Origin>().optional()],
  async (number: number, text: string, mode: EntryMode, key: string, origin?: Origin): Promise<ActionResult> =>
    shown(jobs.enterLine(await database(), number, text, mode, key, origin)),
);

/** Stores an event that a button or a form made. */
export const enterEvent = taking(
  [arg.number, arg.object<EventBody>(), arg.key, arg.object<Origin>().optional()],
  async (number: number, body: EventBody, key: string, origin?: Origin): Promise<ActionResult> =>
    shown(jobs.enter(await database(), number, body, key, { origin })),
);

/** Takes back the last entry that counts. It stays in the record. */
export const undoLast = taking([arg.number, arg.key], async (number: number, key: string): Promise<ActionResult> =>
  shown(jobs.undoLast(await database(), number, key)),
);

/** Finds out what became of an entry whose answer never came. */
export const settleEntry = taking(
  [arg.key],
  async (key: string): Promise<Settled> => settle(await database(), key),
  (answer) => ({ known: true, answer }),
);

/** Instruments that the shop has described itself, beside those that ship. */
export const shopInstruments = async (): Promise<readonly InstrumentDefinition[]> =>
  (await loadInstruments(await database())).definitions;
