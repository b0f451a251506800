import { PracticeSheet } from '@/features/practice/practice-sheet';
import { loadPractice } from '@/features/practice/queries';
import { Sheet, Strip } from '@/ui';

export const dynamic = 'force-dynamic';

export default async function PracticePage() {
  return (
    <Sheet strip={<Strip where="Practice" />}>
      <PracticeSheet practice={await loadPractice()} />
    </Sheet>
  );
}
