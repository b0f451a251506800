import { SketchQuestions } from '@/features/sketch/sketch-questions';
import { Sheet, Strip } from '@/ui';

export default function SketchPage() {
  return (
    <Sheet strip={<Strip where="A board without a file" />}>
      <SketchQuestions />
    </Sheet>
  );
}
