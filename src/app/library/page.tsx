import { LibrarySheet } from '@/features/library/library-sheet';
import { loadBoards } from '@/features/library/queries';
import { Sheet, Strip } from '@/ui';

export const dynamic = 'force-dynamic';

export default async function LibraryPage() {
  const boards = await loadBoards();
  return (
    <Sheet strip={<Strip where="Boards" />}>
      <LibrarySheet boards={boards} />
    </Sheet>
  );
}
