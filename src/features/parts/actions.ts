'use server';

import { revalidatePath } from 'next/cache';
import type { ActionResult } from '@/application/action-result';
import * as parts from '@/application/library/parts';
import * as settings from '@/application/settings';
import { database } from '@/db/client';

const shown = (answer: ActionResult): ActionResult => {
  if (answer.saved) revalidatePath('/', 'layout');
  return answer;
};

/** Keeps what somebody saw; a report that makes no sense changes nothing. */
export const keepReport = async (input: unknown, key: string): Promise<ActionResult> =>
  shown(await parts.keepReport(await database(), input, key));

/** Keeps the school and the rules of a family. */
export const keepFamily = async (id: string, change: unknown): Promise<ActionResult> =>
  shown(await parts.keepFamily(await database(), id, change));

/** Keeps how much a report counts, and whether unproven donors may be planned with. */
export const keepEvidenceSettings = async (change: unknown): Promise<ActionResult> =>
  shown(await settings.keepEvidenceSettings(await database(), change));

/** Adds part types from a file: one, or a list. All of them or none. */
export const addPartTypes = async (text: string): Promise<ActionResult> =>
  shown(await parts.addPartTypes(await database(), text));
