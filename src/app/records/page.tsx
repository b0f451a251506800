import { LearningSheet } from '@/features/records/learning-sheet';
import { PointsSheet } from '@/features/records/points-sheet';
import { loadLearning, loadPoint, loadRecords } from '@/features/records/queries';
import { RecordsSheet } from '@/features/records/records-sheet';
import { Sheet, Strip, ViewLinks } from '@/ui';

export const dynamic = 'force-dynamic';

const VIEWS = [
  { id: 'cures', name: 'What came of it', href: '/records' },
  { id: 'points', name: 'What it read', href: '/records?view=points' },
  { id: 'learning', name: 'What was learned', href: '/records?view=learning' },
] as const;

export default async function RecordsPage({
  searchParams,
}: {
  searchParams: Promise<Record<string, string | string[] | undefined>>;
}) {
  const search = await searchParams;
  const view = VIEWS.find((v) => v.id === search.view)?.id ?? 'cures';
  return (
    <Sheet strip={<Strip where="What the closed jobs say" />}>
      <ViewLinks label="Records" current={view} views={VIEWS} />
      {view === 'points' && <PointsSheet records={await loadPoint(search)} key={JSON.stringify(search)} />}
      {view === 'learning' && <LearningSheet learning={await loadLearning()} />}
      {view === 'cures' && <RecordsSheet records={await loadRecords(search)} />}
    </Sheet>
  );
}
