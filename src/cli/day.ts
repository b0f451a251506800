import type { Command } from 'commander';
import {
  DEFAULT_BUSINESS,
  dayProblemSchema,
  jobEnds,
  learnedDurations,
  planDay,
  quoteOfJob,
  priceRule,
} from '../core/day';
import { readJson, print } from './input';
import { readJob } from './proof';

export function addDayCommands(root: Command): void {
  const day = root.command('day').description('the day at the benches');
  day
    .command('plan <problem>')
    .description('who does what when: jobs, steps, people, resources and hours in; slots, cost, bound and promises out')
    .action((file: string) => {
      const problem = readJson(file, dayProblemSchema);
      const plan = planDay(problem);
      print({ ...plan, ends: jobEnds(problem, plan) });
    });
  root
    .command('quote <board> <events>')
    .description('what a job is likely to take and cost, by what its readings leave to suspect')
    .option('--hour <price>', 'price of an hour', Number)
    .action((board: string, events: string, options: { hour?: number }) => {
      const rule = priceRule(DEFAULT_BUSINESS);
      const job = readJob(board, events);
      print(quoteOfJob(job, learnedDurations([]), { ...rule, hourPrice: options.hour ?? rule.hourPrice }));
    });
}
