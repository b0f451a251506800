import { DrillCourse, DrillSidebar } from '@/features/drills/drill-list';
import { loadDrills } from '@/features/drills/queries';
import { ExerciseLists } from '@/features/exercises/exercise-lists';
import { loadMemoryRound } from '@/features/exercises/queries';
import { Sheet, Strip } from '@/ui';

export const dynamic = 'force-dynamic';

export default async function DrillsPage() {
  const list = await loadDrills();
  return (
    <Sheet strip={<Strip where="Drills" />} sidebar={<DrillSidebar list={list} />}>
      <DrillCourse list={list} />
      <ExerciseLists lists={list.exercises} memory={await loadMemoryRound()} />
    </Sheet>
  );
}
