import { NewJob } from '@/features/arrive/new-job';
import { loadBoardChoices } from '@/features/jobs/queries';
import { Sheet, Strip, UnreadableNote } from '@/ui';

export const dynamic = 'force-dynamic';

export default async function NewJobPage({ searchParams }: { searchParams: Promise<{ board?: string }> }) {
  const [{ boards, unreadable }, { board }] = await Promise.all([loadBoardChoices(), searchParams]);
  return (
    <Sheet strip={<Strip where="A device comes in" />}>
      <UnreadableNote rows={unreadable} />
      <NewJob boards={boards} first={board} />
    </Sheet>
  );
}
