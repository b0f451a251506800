import { notFound } from 'next/navigation';
import { GoodWalk } from '@/features/sketch/good-walk';
import { loadGoodWalk } from '@/features/sketch/queries';
import { Headline, Sheet, Strip } from '@/ui';

export const dynamic = 'force-dynamic';

/** A known-good board, read point by point. */
export default async function GoodBoardPage({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  const { board, revision, photos, references } = await loadGoodWalk(id);
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
    <GoodWalk
      key={id}
      strip={<Strip where={`${device}, ${name}, a good one`} />}
      board={board.value}
      references={references}
      photos={Object.fromEntries(photos.map((p) => [p.side, `/pictures/${p.sha256}`]))}
    />
  );
}
