import { SketchQuestions } from '@/features/sketch/sketch-questions';
import { Sheet, Strip } from '@/ui';

/** @param props with the job that had no board yet, where the questions are asked for one. */
export default async function SketchPage({ searchParams }: { searchParams: Promise<{ job?: string }> }) {
  const job = Number((await searchParams).job);
  return (
    <Sheet strip={<Strip where="A board without a file" />}>
      <SketchQuestions job={Number.isInteger(job) && job > 0 ? job : undefined} />
    </Sheet>
  );
}
