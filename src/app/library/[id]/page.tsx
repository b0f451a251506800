import { notFound } from 'next/navigation';
import { BoardSidebar, BoardSheet } from '@/features/library/board-sheet';
import { loadBoard, loadReferences } from '@/features/library/queries';
import { Sheet, Strip } from '@/ui';

export default async function BoardPage({ params }: { params: Promise<{ id: string }> }) {
  const board = await loadBoard((await params).id);
  if (!board) notFound();
  return (
    <Sheet
      strip={<Strip where={`Board ${board.id}`} />}
      sidebar={<BoardSidebar board={board} references={await loadReferences(board.id)} />}
    >
      <BoardSheet board={board} />
    </Sheet>
  );
}
