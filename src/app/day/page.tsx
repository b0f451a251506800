import { DayOnPaper } from '@/features/day/day-on-paper';
import { loadDay } from '@/features/day/queries';
import { Sheet, Strip } from '@/ui';

export const dynamic = 'force-dynamic';

export default async function DayPage() {
  return (
    <Sheet strip={<Strip where="Bench · the day’s sheet" />}>
      <DayOnPaper day={await loadDay()} />
    </Sheet>
  );
}
