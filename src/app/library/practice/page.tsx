import { PracticeSheet } from '@/features/practice/practice-sheet';
import { loadPractice, loadReportWords } from '@/features/practice/queries';
import { practiceView } from '@/features/practice/view';
import { Sheet, Strip } from '@/ui';

export const dynamic = 'force-dynamic';

export default async function PracticePage({ searchParams }: { searchParams: Promise<{ view?: string }> }) {
  const { view } = await searchParams;
  return (
    <Sheet strip={<Strip where="Practice" />}>
      <PracticeSheet practice={await loadPractice()} reportWords={await loadReportWords()} view={practiceView(view)} />
    </Sheet>
  );
}
