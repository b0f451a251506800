import { BenchSheet } from '@/features/bench/bench-sheet';
import { loadBench } from '@/features/bench/queries';
import { Sheet, Strip } from '@/ui';

export const dynamic = 'force-dynamic';

export default async function BenchPage() {
  const bench = await loadBench();
  return (
    <Sheet strip={<Strip where="Today at the bench" />}>
      <BenchSheet bench={bench} />
    </Sheet>
  );
}
