import { notFound } from 'next/navigation';
import { GuideSheet } from '@/features/guide/guide-sheet';
import { guidePages } from '@/features/guide/pages';
import { Sheet, Strip } from '@/ui';

export default async function GuidePage({ params }: { params: Promise<{ page: string }> }) {
  const { page: id } = await params;
  const pages = guidePages();
  const page = pages.find((p) => p.id === id);
  if (!page) notFound();
  return (
    <Sheet strip={<Strip where="Guide" />}>
      <GuideSheet page={page} pages={pages} />
    </Sheet>
  );
}
