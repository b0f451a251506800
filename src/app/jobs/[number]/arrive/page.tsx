import { ArriveSidebar } from '@/features/arrive/arrive-sidebar';
import { DevicePart } from '@/features/arrive/device-part';
import { ArriveWork } from '@/features/arrive/arrive-work';
import { BoardPart } from '@/features/arrive/board-part';
import { loadBoardsToChoose, loadRevisionChoice } from '@/features/arrive/queries';
import { RevisionPart } from '@/features/arrive/revision-part';
import { storyHeadline } from '@/features/arrive/story-headline';
import { PastPart } from '@/features/arrive/past-part';
import { dropLesson } from '@/features/close/actions';
import { PicturePart } from '@/features/close/picture-part';
import { isLessonKept } from '@/features/close/queries';
import { JobFrame } from '@/features/job/job-frame';
import { jobOfPage, type JobPageProps } from '../job-page';

export default async function ArrivePage(props: JobPageProps) {
  const { job } = await jobOfPage(props);
  const times = job.priorClosures.length;
  const lessonsKept = await Promise.all(job.priorClosures.map((_, i) => isLessonKept(job.number, times - 1 - i)));
  const past = times > 0 && <PastPart job={job} lessonsKept={lessonsKept} onDropLesson={dropLesson} />;
  const [choice, boards] = await Promise.all([loadRevisionChoice(job.number), loadBoardsToChoose(job)]);
  return (
    <JobFrame
      job={job}
      stage="arrive"
      work={
        <>
          <ArriveWork job={job} keptTitle={storyHeadline(job, job.state.story?.history ?? [])} past={past} />
          <PicturePart job={job} taken="arrive" />
        </>
      }
      sidebar={
        <>
          {boards && <BoardPart number={job.number} boards={boards} />}
          {choice && <RevisionPart number={job.number} choice={choice} />}
          <DevicePart job={job} />
          <ArriveSidebar job={job} />
        </>
      }
    />
  );
}
