import { notFound } from 'next/navigation';
import { BoardEditor } from '@/features/sketch/board-editor';
import { loadSketch } from '@/features/sketch/queries';
import { Headline, Sheet, Strip } from '@/ui';

export const dynamic = 'force-dynamic';

export default async function EditBoardPage({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  const { board, revision, photos } = await loadSketch(id);
  if (revision === undefined) notFound();
  if (!board.ok)
    return (
      <Sheet strip={<Strip where={`Board ${id}`} />}>
        <Headline title="This board cannot be read" aside={id}>
          {board.problems[0].message}
        </Headline>
      </Sheet>
    );
  const { device, name } = board.value;
  return (
    <BoardEditor
      key={id}
      strip={<Strip where={`${device}, ${name}`} />}
      board={board.value}
      revision={revision}
      photos={photos.map(({ side, sha256, place }) => ({ side, sha256, doubtMm: place.doubtMm }))}
    />
  );
}
