import 'server-only';
import * as choice from '@/application/jobs/choose-chip';
import type { ChoiceView } from '@/core/choice';
import type { JobView } from '@/core/job';
import { database } from '@/db/client';

/** The ways to fill the place that this job is about; undefined where no part type matters there. */
export const loadChoice = async (job: JobView): Promise<ChoiceView | undefined> =>
  choice.loadChoice(await database(), job);

/** The resistors that straps are made of at this bench, and what each part type reads out of a divider. */
export const loadStraps = async () => choice.loadStraps(await database());
export type Straps = Awaited<ReturnType<typeof loadStraps>>;
