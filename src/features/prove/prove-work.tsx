'use client';

import type { ReactNode } from 'react';
import dynamic from 'next/dynamic';
import type { JobView, KeepEvent } from '@/core/job';
import { ViewLinks } from '@/ui';
import { ProveHeadline } from './prove-headline';
import { RailsView } from './rails-view';
import { VIEWS, proveHref, type ProvePlace } from './view';

// Each view brings its script when it is shown.
const FunctionsView = dynamic(() => import('./functions-view').then((m) => m.FunctionsView));
const UnpoweredView = dynamic(() => import('./unpowered-view').then((m) => m.UnpoweredView));
/** The instruments come after the page: the simulated ones need the whole circuit. */
const InstrumentsPart = dynamic(() => import('./instruments-part').then((m) => m.InstrumentsPart), { ssr: false });

export interface ProveWorkProps {
  readonly job: JobView;
  readonly place: ProvePlace;
  /** Both plug ways, before and after, with the meter's tools. */
  readonly plugs: ReactNode;
  readonly onKeep: KeepEvent;
}

/** The proof in the order of the bench: before power, rails, both plug ways, functions and soak. */
export function ProveWork({ job, place, plugs, onKeep }: ProveWorkProps) {
  const { view } = place;
  return (
    <>
      <ProveHeadline job={job} place={place} />
      <ViewLinks
        label="Steps of the proof"
        current={view}
        views={VIEWS.map(([id, name]) => ({ id, name, href: proveHref(id) }))}
      />
      {(view === 'unpowered' || view === 'rails') && <InstrumentsPart job={job} place={place} />}
      {view === 'unpowered' && <UnpoweredView job={job} walk={place.walk} />}
      {view === 'rails' && <RailsView job={job} />}
      {view === 'plugs' && plugs}
      {view === 'functions' && <FunctionsView job={job} onKeep={onKeep} />}
    </>
  );
}
