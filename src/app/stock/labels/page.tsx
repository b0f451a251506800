import { Labels } from '@/features/stock/labels';
import { loadShelf } from '@/features/stock/queries';
import { Sheet, Strip } from '@/ui';

export const dynamic = 'force-dynamic';

export default async function LabelsPage() {
  const { trays } = await loadShelf();
  return (
    <Sheet strip={<Strip where="Stock · labels" />}>
      <Labels trays={trays} />
    </Sheet>
  );
}
