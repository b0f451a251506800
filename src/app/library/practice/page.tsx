import { PracticeSheet } from '@/features/practice/practice-sheet';
import { loadBusiness, loadPractice, loadReportWords } from '@/features/practice/queries';
import { practiceView } from '@/features/practice/view';
import { Sheet, Strip } from '@/ui';

export const dynamic = 'force-dynamic';

export default async function PracticePage({ searchParams }: { searchParams: Promise<{ view?: string }> }) {
  const { view } = await searchParams;
  const [practice, reportWords, business] = await Promise.all([loadPractice(), loadReportWords(), loadBusiness()]);
  return (
    <Sheet strip={<Strip where="Practice" />}>
      <PracticeSheet practice={practice} reportWords={reportWords} business={business} view={practiceView(view)} />
    </Sheet>
  );
}
