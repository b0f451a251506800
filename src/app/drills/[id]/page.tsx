import { notFound } from 'next/navigation';
import { DrillEntry, DrillSide, DrillWork } from '@/features/drills/drill-work';
import { loadDrill } from '@/features/drills/queries';
import { TourNote } from '@/features/drills/tour';
import { ExerciseWork } from '@/features/exercises/exercise-work';
import { loadExercise } from '@/features/exercises/queries';
import { CautionNote, EntryOfferProvider, Sheet, Strip } from '@/ui';

export const dynamic = 'force-dynamic';

export default async function DrillPage({
  params,
  searchParams,
}: {
  params: Promise<{ id: string }>;
  searchParams: Promise<{ tour?: string }>;
}) {
  const id = Number((await params).id);
  const exercise = await loadExercise(id);
  if (exercise)
    return (
      <Sheet strip={<Strip where={`Exercise on ${exercise.board.device}`} />}>
        <ExerciseWork exercise={exercise} />
      </Sheet>
    );
  const drill = await loadDrill(id);
  const isTour = (await searchParams).tour !== undefined;
  if (!drill) notFound();
  return (
    <EntryOfferProvider>
      <Sheet
        strip={<Strip where={`Drill on ${drill.board.device}`} />}
        sidebar={<DrillSide drill={drill} />}
        caution={
          <CautionNote
            title="A drill."
            text="No board is on the bench: every value is simulated, and none is kept in any record."
          />
        }
        entry={drill.end === undefined ? <DrillEntry drill={drill} /> : undefined}
      >
        {isTour && <TourNote drill={drill} />}
        <DrillWork drill={drill} />
      </Sheet>
    </EntryOfferProvider>
  );
}
