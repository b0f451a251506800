import { proofMinutes } from '../diagnose';
import type { JobView } from '../job';
import { quoteOf, type PriceRule, type Quote } from './quote';
import type { Durations } from './steps-ahead';

/** A proven cure comes back so often. Engineering estimate; the shop's own records say better. */
const COMEBACK = 0.05;
const SD_LOG = 0.45;

/** What a job will take and cost, by what its readings leave to suspect. */
export function quoteOfJob(job: JobView, durations: Durations, rule: PriceRule): Quote {
  const single = job.repairs.filter((r) => r.targets.length === 1);
  const isLooking = job.state.decision === undefined;
  return quoteOf(
    {
      ways: single.map((r) => ({ label: r.label, chance: r.cureChance, minutes: r.minutes, parts: r.price })),
      searchMinutes: isLooking ? durations.outside.minutes + durations.probe.minutes : 0,
      proofMinutes: proofMinutes(job.board),
      sdLog: SD_LOG,
      comebackChance: COMEBACK,
      worth: job.state.story?.worth,
    },
    rule,
  );
}
