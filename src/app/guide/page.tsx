import { redirect } from 'next/navigation';
import { guideFor } from '@/features/guide/pages';

/** The page of the guide about the place that somebody comes from. */
export default async function GuidePage({ searchParams }: { searchParams: Promise<{ for?: string | string[] }> }) {
  const { for: from = '/' } = await searchParams;
  redirect(`/guide/${guideFor(String(from))}`);
}
