import { BenchSheet } from '@/features/bench/bench-sheet';
import { loadBench } from '@/features/bench/queries';
import { DaySheet } from '@/features/day/day-sheet';
import { loadDay } from '@/features/day/queries';
import { TourOffer } from '@/features/drills/tour';
import { Sheet, Strip, ViewLinks } from '@/ui';

export const dynamic = 'force-dynamic';

const VIEWS = [
  { id: 'queue', name: 'The queue', href: '/' },
  { id: 'day', name: 'The day', href: '/?view=day' },
] as const;

export default async function BenchPage({ searchParams }: { searchParams: Promise<{ view?: string }> }) {
  const view = (await searchParams).view === 'day' ? 'day' : 'queue';
  return (
    <Sheet strip={<Strip where="Today at the bench" />}>
      <ViewLinks label="Bench" current={view} views={VIEWS} />
      {view === 'day' ? (
        <DaySheet day={await loadDay()} />
      ) : (
        <BenchSheet bench={await loadBench()} tour={<TourOffer />} />
      )}
    </Sheet>
  );
}
