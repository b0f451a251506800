import { ImagesSheet } from '@/features/image/images-sheet';
import { loadImageLibrary } from '@/features/image/queries';
import { Sheet, Strip } from '@/ui';

export const dynamic = 'force-dynamic';

export default async function ImagesPage({
  searchParams,
}: {
  searchParams: Promise<Record<string, string | undefined>>;
}) {
  const { family, view } = await searchParams;
  return (
    <Sheet strip={<Strip where="Images" />}>
      <ImagesSheet library={await loadImageLibrary()} family={family} view={view === 'map' ? 'map' : 'compare'} />
    </Sheet>
  );
}
