import { notFound } from 'next/navigation';
import { StationSheet } from '@/features/stations/station-sheet';
import { isDemo, loadStation } from '@/features/stations/queries';
import { Sheet, Strip } from '@/ui';

export const dynamic = 'force-dynamic';

export default async function StationPage({ params }: { params: Promise<{ id: string }> }) {
  const known = await loadStation((await params).id);
  if (!known) notFound();
  return (
    <Sheet strip={<Strip where={known.station.name} />}>
      <StationSheet {...known} simulators={await isDemo()} />
    </Sheet>
  );
}
