import { MemoryWork } from '@/features/exercises/memory-work';
import { loadMemoryRound } from '@/features/exercises/queries';
import { Sheet, Strip } from '@/ui';

export const dynamic = 'force-dynamic';

export default async function MemoryPage() {
  return (
    <Sheet strip={<Strip where="Memory" />}>
      <MemoryWork round={await loadMemoryRound()} />
    </Sheet>
  );
}
