'use client';

import { useMemo, useState } from 'react';
import dynamic from 'next/dynamic';
import { useRouter } from 'next/navigation';
import { Flex, chakra } from '@chakra-ui/react';
import { outsideOf, packAtPort, type JobView, type KeepEvent } from '@/core/job';
import { CHARGERS, PACK_STATES, type PackState } from '@/core/trace';
import { LookView } from './look-view';
import { ViewLinks } from '@/ui';
import { OutsideHeadline } from './outside-headline';
import { VIEWS, outsideHref, type OutsidePlace } from './view';

// Each view brings its script when it is shown.
const MeterView = dynamic(() => import('./meter-view').then((m) => m.MeterView));
const TalkView = dynamic(() => import('./talk-view').then((m) => m.TalkView));
const TraceView = dynamic(() => import('./trace-view').then((m) => m.TraceView));
const WalkView = dynamic(() => import('./walk-view').then((m) => m.WalkView));

const PACK_WORDS: Record<PackState, string> = {
  partly: 'pack partly charged',
  flat: 'pack flat',
  full: 'pack full',
  out: 'pack out',
};

export interface OutsideWorkProps {
  readonly job: JobView;
  readonly place: OutsidePlace;
  readonly testIndex: number;
  readonly onKeep: KeepEvent;
}

/** What the port says before the device is opened: a look, the meter, its traces, the conversation, its contacts. */
export function OutsideWork({ job, place, testIndex, onKeep }: OutsideWorkProps) {
  const { port, view } = place;
  const [charger, setCharger] = useState(CHARGERS[CHARGERS.length - 1]);
  const [chosenPack, setPack] = useState<PackState>();
  const pack = chosenPack ?? packAtPort(port, job.state);
  const outside = useMemo(() => outsideOf(port, job.state, charger, pack), [port, job.state, charger, pack]);
  const asked = job.tests[testIndex]?.access === 'closed' ? job.tests[testIndex] : undefined;
  const metered = view === 'meter' || view === 'trace';
  return (
    <>
      <OutsideHeadline job={job} place={place} asked={asked} conclusion={outside.conclusion} />
      <ViewLinks
        label="Views of the port"
        current={view}
        views={VIEWS.map(([id, name]) => ({ id, name, href: outsideHref(id, port.id) }))}
      >
        <Flex gap="3" ml="auto" color="quiet" align="baseline">
          {job.board.ports.length > 1 && <PortSelect job={job} place={place} />}
          {metered && (
            <>
              <chakra.select
                aria-label="Charger"
                value={charger.name}
                onChange={(e) => setCharger(CHARGERS.find((c) => c.name === e.target.value) ?? charger)}
                bg="transparent"
              >
                {CHARGERS.map((c) => (
                  <option key={c.name} value={c.name}>
                    {c.name} charger
                  </option>
                ))}
              </chakra.select>
              <chakra.select
                aria-label="Pack"
                value={pack}
                onChange={(e) => setPack(e.target.value as PackState)}
                bg="transparent"
              >
                {PACK_STATES.map((p) => (
                  <option key={p} value={p}>
                    {PACK_WORDS[p]}
                  </option>
                ))}
              </chakra.select>
            </>
          )}
        </Flex>
      </ViewLinks>
      {view === 'look' && <LookView job={job} port={port} onKeep={onKeep} />}
      {view === 'meter' && <MeterView job={job} port={port} expected={outside.expected} />}
      {view === 'trace' && <TraceView job={job} port={port} outside={outside} onKeep={onKeep} />}
      {view === 'talk' && <TalkView job={job} port={port} onKeep={onKeep} />}
      {view === 'walk' && <WalkView job={job} port={port} />}
    </>
  );
}

function PortSelect({ job, place }: { job: JobView; place: OutsidePlace }) {
  const router = useRouter();
  return (
    <chakra.select
      aria-label="Port"
      value={place.port.id}
      onChange={(e) => router.replace(outsideHref(place.view, e.target.value), { scroll: false })}
      bg="transparent"
    >
      {job.board.ports.map((p) => (
        <option key={p.id}>{p.id}</option>
      ))}
    </chakra.select>
  );
}
