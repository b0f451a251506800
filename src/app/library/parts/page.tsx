import { PartsSheet } from '@/features/parts/parts-sheet';
import { loadParts } from '@/features/parts/queries';
import { Sheet, Strip, UnreadableNote } from '@/ui';

export const dynamic = 'force-dynamic';

export default async function PartsPage({ searchParams }: { searchParams: Promise<{ type?: string }> }) {
  const { type } = await searchParams;
  const parts = await loadParts();
  return (
    <Sheet strip={<Strip where="Part types" />}>
      <UnreadableNote rows={parts.unreadable} />
      <PartsSheet parts={parts} asked={type} />
    </Sheet>
  );
}
