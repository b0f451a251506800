'use server';

import { revalidatePath } from 'next/cache';
import type { ActionResult } from '@/application/action-result';
import * as business from '@/application/day/business';
import * as presets from '@/application/file-presets';
import * as places from '@/application/place';
import * as settings from '@/application/settings';
import { database } from '@/db/client';

const shown = (answer: ActionResult): ActionResult => {
  if (answer.saved) revalidatePath('/', 'layout');
  return answer;
};

/** Keeps what the bench settles for itself, beside what it settled before; what makes no sense changes nothing. */
export const keepPractice = async (change: unknown): Promise<ActionResult> =>
  shown(await settings.keepPractice(await database(), change));

/** Keeps how the shop's reports read; what makes no sense changes nothing. */
export const keepReportWords = async (words: unknown): Promise<ActionResult> =>
  shown(await settings.keepReportWords(await database(), words));

/** Keeps when the shop works, how it prices, and what an owner is told. */
export const keepBusiness = async (asked: unknown): Promise<ActionResult> =>
  shown(await business.keepBusiness(await database(), asked));

/** Keeps where the bench stands: its time zone, language and money. */
export const keepPlace = async (place: unknown): Promise<ActionResult> =>
  shown(await places.keepPlace(await database(), place));

/** Keeps what was said of an instrument's files, for files like it. */
export const keepFilePreset = async (preset: unknown): Promise<ActionResult> =>
  shown(await presets.keepFilePreset(await database(), preset));

/** What the closed jobs of this bench say of each kind of part; nothing is kept by asking. */
export const learnFromJobs = async () => settings.learnFromJobs(await database());
