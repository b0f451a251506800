import { NewJob } from '@/features/arrive/new-job';
import { loadBoardChoices } from '@/features/jobs/queries';
import { Sheet, Strip, UnreadableNote } from '@/ui';

export const dynamic = 'force-dynamic';

export default async function NewJobPage() {
  const { boards, unreadable } = await loadBoardChoices();
  return (
    <Sheet strip={<Strip where="A device comes in" />}>
      <UnreadableNote rows={unreadable} />
      <NewJob boards={boards} />
    </Sheet>
  );
}
