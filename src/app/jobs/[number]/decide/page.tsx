import { ChipSidebar, WalkAway } from '@/features/decide/chip-sidebar';
import { ChipWork } from '@/features/decide/chip-work';
import { DecideWork } from '@/features/decide/decide-work';
import { loadChoice, loadStraps } from '@/features/decide/queries';
import { StrapsWork } from '@/features/decide/straps-work';
import { DECIDE_VIEWS, decideView } from '@/features/decide/view';
import { QuoteWork } from '@/features/day/quote-work';
import { loadQuote } from '@/features/day/queries';
import { enterEvent } from '@/features/job/actions';
import { JobFrame } from '@/features/job/job-frame';
import { ProbeSidebar } from '@/features/probe/probe-sidebar';
import { ViewLinks } from '@/ui';
import { jobOfPage, type JobPageProps } from '../job-page';

export default async function DecidePage(props: JobPageProps) {
  const { job } = await jobOfPage(props);
  const view = decideView((await props.searchParams).view, job.state.decision?.action === 'replace');
  const priced = view === 'quote' ? await loadQuote(job) : undefined;
  const choice = view === 'route' || view === 'quote' ? undefined : await loadChoice(job);
  const straps = view === 'straps' ? await loadStraps() : undefined;
  return (
    <JobFrame
      job={job}
      stage="decide"
      work={
        <>
          <ViewLinks label="Decide" current={view} views={DECIDE_VIEWS} />
          {view === 'route' && <DecideWork job={job} onKeep={enterEvent} />}
          {view === 'chip' && <ChipWork job={job} choice={choice} />}
          {priced && <QuoteWork job={job} {...priced} onKeep={enterEvent} />}
          {straps && <StrapsWork job={job} asked={choice?.ref} straps={straps} />}
        </>
      }
      sidebar={
        choice ? (
          <ChipSidebar job={job} choice={choice} />
        ) : (
          <>
            <ProbeSidebar job={job} />
            <WalkAway job={job} />
          </>
        )
      }
    />
  );
}
