import { Headline, Sheet, Strip } from '@/ui';

export default function NotFound() {
  return (
    <Sheet strip={<Strip />}>
      <Headline title="There is no such page" aside="404">
        Expected a job, a board or a place named in the strip above.
      </Headline>
    </Sheet>
  );
}
