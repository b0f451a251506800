import { enterEvent } from '@/features/job/actions';
import { JobFrame } from '@/features/job/job-frame';
import { PlugProof } from '@/features/outside/plug-proof-later';
import { GatesSidebar } from '@/features/prove/gates-sidebar';
import { ProveWork } from '@/features/prove/prove-work';
import { proveHref, provePlace, type ProveSearch } from '@/features/prove/view';
import { jobOfPage, type JobPageProps } from '../job-page';

export default async function ProvePage(props: JobPageProps) {
  const { job } = await jobOfPage(props);
  const place = provePlace(job, (await props.searchParams) as ProveSearch);
  const hrefs = Object.fromEntries(job.board.ports.map(({ id }) => [id, proveHref('plugs', { port: id })]));
  return (
    <JobFrame
      job={job}
      stage="prove"
      mode="volt"
      bareStem={place.stem}
      work={
        <ProveWork
          job={job}
          place={place}
          plugs={
            place.view === 'plugs' && <PlugProof job={job} portId={place.portId} hrefs={hrefs} onKeep={enterEvent} />
          }
          onKeep={enterEvent}
        />
      }
      sidebar={<GatesSidebar job={job} />}
    />
  );
}
