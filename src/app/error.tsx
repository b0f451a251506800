'use client';

import { Headline, MainButton, Sheet, Strip } from '@/ui';

/** What is kept is kept: the page can be asked for again. */
export default function PageError({ error, reset }: { error: Error & { digest?: string }; reset: () => void }) {
  return (
    <Sheet strip={<Strip />}>
      <Headline title="This page could not be made" aside={error.digest}>
        Every confirmed entry is on disk. Try again; if it stays, the terminal that runs the bench shows why.
      </Headline>
      <MainButton type="button" onClick={reset}>
        Try again
      </MainButton>
    </Sheet>
  );
}
