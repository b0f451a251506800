import { notFound } from 'next/navigation';
import { DrillEntry, DrillSide, DrillWork } from '@/features/drills/drill-work';
import { loadDrill } from '@/features/drills/queries';
import { CautionNote, EntryOfferProvider, Sheet, Strip } from '@/ui';

export const dynamic = 'force-dynamic';

export default async function DrillPage({ params }: { params: Promise<{ id: string }> }) {
  const drill = await loadDrill(Number((await params).id));
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
        <DrillWork drill={drill} />
      </Sheet>
    </EntryOfferProvider>
  );
}
