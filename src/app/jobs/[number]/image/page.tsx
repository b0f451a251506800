import { ImageMargin } from '@/features/image/image-margin';
import { ImageWork } from '@/features/image/image-work';
import { loadImageBench } from '@/features/image/queries';
import { JobFrame } from '@/features/job/job-frame';
import { jobOfPage, type JobPageProps } from '../job-page';

export default async function ImagePage(props: JobPageProps) {
  const { job } = await jobOfPage(props);
  const bench = await loadImageBench(job);
  return (
    <JobFrame
      job={job}
      stage="image"
      work={<ImageWork job={job} bench={bench} />}
      margin={<ImageMargin bench={bench} />}
    />
  );
}
