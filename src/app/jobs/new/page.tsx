import { NewJob } from '@/features/arrive/new-job';
import { loadBoardChoices } from '@/features/jobs/queries';
import { Sheet, Strip } from '@/ui';

export const dynamic = 'force-dynamic';

export default async function NewJobPage() {
  const boards = await loadBoardChoices();
  return (
    <Sheet strip={<Strip where="A device comes in" />}>
      <NewJob boards={boards} />
    </Sheet>
  );
}
