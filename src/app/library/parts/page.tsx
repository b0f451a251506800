import { PartsSheet } from '@/features/parts/parts-sheet';
import { loadParts } from '@/features/parts/queries';
import { Sheet, Strip } from '@/ui';

export const dynamic = 'force-dynamic';

export default async function PartsPage({ searchParams }: { searchParams: Promise<{ type?: string }> }) {
  const { type } = await searchParams;
  return (
    <Sheet strip={<Strip where="Part types" />}>
      <PartsSheet parts={await loadParts()} asked={type} />
    </Sheet>
  );
}
