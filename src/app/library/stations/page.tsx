import { loadAllStations } from '@/features/stations/queries';
import { StationsSheet } from '@/features/stations/stations-sheet';
import { Sheet, Strip } from '@/ui';

export const dynamic = 'force-dynamic';

export default async function StationsPage() {
  return (
    <Sheet strip={<Strip where="Stations" />}>
      <StationsSheet stations={await loadAllStations()} />
    </Sheet>
  );
}
