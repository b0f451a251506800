import { LibrarySheet } from '@/features/library/library-sheet';
import { loadLibrary } from '@/features/library/queries';
import { Sheet, Strip, UnreadableNote } from '@/ui';

export const dynamic = 'force-dynamic';

export default async function LibraryPage() {
  const { boards, unreadable } = await loadLibrary();
  return (
    <Sheet strip={<Strip where="Boards" />}>
      <UnreadableNote rows={unreadable} />
      <LibrarySheet boards={boards} />
    </Sheet>
  );
}
