import { ImageSidebar } from '@/features/image/image-sidebar';
import { ImageWork } from '@/features/image/image-work';
import { loadImageBench } from '@/features/image/queries';
import { imageView } from '@/features/image/view';
import { JobFrame } from '@/features/job/job-frame';
import { jobOfPage, type JobPageProps } from '../job-page';

export default async function ImagePage(props: JobPageProps) {
  const [{ job }, asked] = await Promise.all([jobOfPage(props), props.searchParams]);
  const bench = await loadImageBench(job);
  return (
    <JobFrame
      job={job}
      stage="image"
      work={<ImageWork job={job} bench={bench} view={imageView(asked.view)} />}
      sidebar={<ImageSidebar bench={bench} />}
    />
  );
}
