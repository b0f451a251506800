import { DraftSheet } from '@/features/draft/draft-sheet';
import { Sheet, Strip } from '@/ui';

export default function DraftPage() {
  return (
    <Sheet strip={<Strip where="A new board" />}>
      <DraftSheet />
    </Sheet>
  );
}
