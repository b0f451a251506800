import { notFound } from 'next/navigation';
import { BoardSidebar, BoardSheet } from '@/features/library/board-sheet';
import { BoardFilePart } from '@/features/library/board-file-part';
import { loadBoardPhotos } from '@/features/probe/queries';
import { findLibraryBoard, loadBoardFile, loadImports, loadReferences } from '@/features/library/queries';
import { Headline, Sheet, Strip } from '@/ui';

export const dynamic = 'force-dynamic';

export default async function BoardPage({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  const [board, file] = await Promise.all([findLibraryBoard(id), loadBoardFile(id)]);
  if (file.revisions.length === 0) notFound();
  const strip = <Strip where={`Board ${id}`} />;
  if (!board.ok)
    return (
      <Sheet strip={strip}>
        <Headline title="This board cannot be read" aside={id}>
          {board.problems[0].message} Its jobs and everything else are as they were; adding its file again makes a new
          revision.
        </Headline>
      </Sheet>
    );
  const [references, imports, photos] = await Promise.all([loadReferences(id), loadImports(id), loadBoardPhotos(id)]);
  return (
    <Sheet
      strip={strip}
      sidebar={
        <BoardSidebar board={board.value} references={references} imports={imports}>
          <BoardFilePart id={id} file={file} />
        </BoardSidebar>
      }
    >
      <BoardSheet board={board.value} photos={photos} />
    </Sheet>
  );
}
