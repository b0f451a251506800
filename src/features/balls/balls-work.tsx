'use client';

import type { JobView, KeepEvent } from '@/core/job';
import { Headline, ViewLinks } from '@/ui';
import { ClearWork } from './clear-work';
import { MixWork } from './mix-work';
import { PadsWork } from './pads-work';
import { PictureWork } from './picture-work';
import { PlaceWork } from './place-work';
import type { SiteBench } from './queries';
import { sitePart } from './site-part';
import { SiteWork } from './site-work';
import { ballsViews, type BallsView } from './view';

export interface BallsProps {
  readonly job: JobView;
  readonly bench: SiteBench;
  readonly view: BallsView;
  /** Another part than the job's own. */
  readonly asked?: string;
  readonly onKeep: KeepEvent;
}

/** Everything between the first touch of heat and the placed part. */
export function BallsWork({ job, bench, view, asked, onKeep }: BallsProps) {
  const part = sitePart(job, asked);
  const views = ballsViews(asked && part?.ref);
  if (!part && view !== 'mix') {
    return (
      <>
        <ViewLinks label="Balls" current={view} views={views} />
        <Headline title="No part to place yet" aside="decide first">
          Once a part is decided on, its guards, pads, paste and balls are worked out here.
        </Headline>
      </>
    );
  }
  return (
    <>
      <ViewLinks label="Balls" current={view} views={views} />
      {view === 'mix' && <MixWork board={job.board} />}
      {part && view === 'clear' && <ClearWork key={part.ref} job={job} part={part} bench={bench} />}
      {part && view === 'site' && <SiteWork key={part.ref} job={job} part={part} bench={bench} onKeep={onKeep} />}
      {part && view === 'pads' && <PadsWork key={part.ref} job={job} part={part} onKeep={onKeep} />}
      {part && view === 'picture' && <PictureWork key={part.ref} job={job} part={part} bench={bench} />}
      {part && view === 'place' && <PlaceWork key={part.ref} job={job} part={part} onKeep={onKeep} />}
    </>
  );
}
