import { loadAllStations } from '@/features/stations/queries';
import { StationsSheet } from '@/features/stations/stations-sheet';
import { Sheet, Strip, UnreadableNote } from '@/ui';

export const dynamic = 'force-dynamic';

export default async function StationsPage() {
  const { stations, unreadable } = await loadAllStations();
  return (
    <Sheet strip={<Strip where="Stations" />}>
      <UnreadableNote rows={unreadable} />
      <StationsSheet stations={stations} />
    </Sheet>
  );
}
