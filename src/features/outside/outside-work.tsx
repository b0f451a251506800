'use client';

import { useMemo, useState } from 'react';
import { Box, Flex, Grid, Text, chakra } from '@chakra-ui/react';
import type { PlugSide, Port } from '@/core/board';
import { meterCases } from '@/core/diagnose';
import { outsideOf, type JobView, type KeepEvent, type ReadingView } from '@/core/job';
import { CHARGERS, type OutsideConclusion } from '@/core/trace';
import { formatMinutes } from '@/core/units';
import { MeterPlane } from '@/drawings/meter-plane';
import { Headline, useEntryOffer } from '@/ui';
import { TalkView } from './talk-view';
import { TraceView } from './trace-view';

const VIEWS = [
  ['meter', 'The meter'],
  ['trace', 'Traces'],
  ['talk', 'Conversation'],
] as const;
type View = (typeof VIEWS)[number][0];

/** What the port says: both ways round at each port, on the plane of volts and amps, over time, and as a conversation. */
export function OutsideWork({ job, testIndex, onKeep }: { job: JobView; testIndex: number; onKeep: KeepEvent }) {
  const { ports } = job.board;
  const asked = job.tests[testIndex]?.access === 'closed' ? job.tests[testIndex] : undefined;
  const [portId, setPort] = useState(() => portOfInterest(job, ports).id);
  const [view, setView] = useState<View>('meter');
  const [charger, setCharger] = useState(CHARGERS[CHARGERS.length - 1]);
  const port = ports.find((p) => p.id === portId) ?? ports[0];
  const outside = useMemo(() => outsideOf(port, job.state, charger), [port, job.state, charger]);
  return (
    <>
      <OutsideHeadline job={job} asked={asked} conclusion={outside.conclusion} />
      <Grid
        templateColumns={ports.length > 1 ? 'auto 1fr 1fr' : '1fr 1fr'}
        columnGap="5"
        rowGap={ports.length > 1 ? '1' : '2'}
        mb="3"
        alignItems="baseline"
      >
        {ports.map((p) => (
          <PortRow key={p.id} job={job} port={p} named={ports.length > 1} />
        ))}
      </Grid>
      <Flex gap="5" align="baseline" mb="2" wrap="wrap" fontSize="14px">
        {VIEWS.map(([id, name]) => (
          <chakra.button
            key={id}
            type="button"
            cursor="pointer"
            aria-pressed={view === id}
            fontWeight={view === id ? '700' : '400'}
            borderBottom="2px solid"
            borderColor={view === id ? 'copper' : 'transparent'}
            onClick={() => setView(id)}
          >
            {name}
          </chakra.button>
        ))}
        <Flex gap="2" ml="auto" color="quiet" align="baseline">
          {ports.length > 1 && (
            <chakra.select aria-label="Port" value={port.id} onChange={(e) => setPort(e.target.value)} bg="transparent">
              {ports.map((p) => (
                <option key={p.id}>{p.id}</option>
              ))}
            </chakra.select>
          )}
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
          <span>
            healthy: {outside.expected.volts} V, {outside.expected.amps[0].toFixed(2)} to{' '}
            {outside.expected.amps[1].toFixed(2)} A
          </span>
        </Flex>
      </Flex>
      {view === 'meter' && (
        <MeterPlane
          title={ports.length > 1 ? `Port ${port.id}` : 'The meter'}
          designV={port.designV}
          cases={meterCases(job.board, port.id)}
          readings={usbReadings(job, port.id)}
        />
      )}
      {view === 'trace' && <TraceView job={job} port={port} outside={outside} onKeep={onKeep} />}
      {view === 'talk' && <TalkView job={job} port={port} onKeep={onKeep} />}
    </>
  );
}

interface OutsideHeadlineProps {
  readonly job: JobView;
  readonly asked?: JobView['tests'][number];
  readonly conclusion?: OutsideConclusion;
}

function OutsideHeadline({ job, asked, conclusion }: OutsideHeadlineProps) {
  const looks = job.readings.filter((r) => r.measurement.kind === 'look');
  const latest = new Map(looks.filter((r) => r.current).map((r) => [r.name, r]));
  const doubtful = [...latest.values()].find((r) => r.raw.kind === 'fail');
  if (doubtful) {
    return (
      <Headline
        title={`Do not power ${doubtful.measurement.kind === 'look' ? doubtful.measurement.ref : 'it'}`}
        aside="looked damaged"
      >
        Clean or replace the port first, then look again: type “look {doubtful.stem.split(' ')[1]} good”.
      </Headline>
    );
  }
  if (looks.length === 0) {
    const [port] = job.board.ports;
    return (
      <Headline title={`Look into ${port.id} before any power`} aside="1 min, device closed">
        Crossed or pushed-back pins, corrosion, a loose shell, debris. Then type “look {port.id.toLowerCase()} good” or
        “bad”.
      </Headline>
    );
  }
  if (asked) {
    return (
      <Headline title={asked.title} aside={`${formatMinutes(asked.minutes)}, device closed`}>
        {asked.outlook.join(' ')}
      </Headline>
    );
  }
  return (
    <Headline title={conclusion?.words ?? headlineOf(job.findings.outside)} aside="outside is done">
      {conclusion && `${conclusion.reasons.join('. ')}. `}
      {conclusion && conclusion.implicates.length > 0 && `It points to ${conclusion.implicates.join(', ')}. `}
      Next: {job.next.title}.
    </Headline>
  );
}

function headlineOf(finding: string): string {
  const text = finding.includes(': ') && !finding.includes(';') ? finding.split(': ').slice(1).join(': ') : finding;
  return text.charAt(0).toUpperCase() + text.slice(1);
}

const usbReadings = (
  job: JobView,
  port: string,
): { side: PlugSide; volts: number; amps: number; state: 'good' | 'bad' | 'plain' }[] =>
  (['A', 'B'] as const).flatMap((side) => {
    const r = latestUsb(job, port, side);
    return r?.raw.kind === 'pair' ? [{ side, volts: r.raw.volts, amps: r.raw.amps, state: r.meaning.state }] : [];
  });

function latestUsb(job: JobView, port: string, side: PlugSide): ReadingView | undefined {
  return [...job.readings]
    .reverse()
    .find(
      (r) => r.current && r.measurement.kind === 'usb' && r.measurement.port === port && r.measurement.side === side,
    );
}

/** The port with the reading that fits worst, else the first. */
function portOfInterest(job: JobView, ports: readonly Port[]): Port {
  const odd = ports.find((p) => usbReadings(job, p.id).some((r) => r.state === 'bad'));
  return odd ?? ports.find((p) => usbReadings(job, p.id).length > 0) ?? ports[0];
}

function PortRow({ job, port, named }: { job: JobView; port: Port; named: boolean }) {
  return (
    <>
      {named && (
        <Text fontFamily="mono" fontWeight="700">
          {port.id}
        </Text>
      )}
      {(['A', 'B'] as const).map((side) => (
        <WayFigure key={side} job={job} port={port} side={side} large={!named} />
      ))}
    </>
  );
}

function WayFigure({ job, port, side, large }: { job: JobView; port: Port; side: PlugSide; large: boolean }) {
  const { offerText } = useEntryOffer();
  const r = latestUsb(job, port.id, side);
  const stem = `usb ${job.board.ports.length > 1 ? `${port.id.toLowerCase()} ` : ''}${side.toLowerCase()} `;
  return (
    <Box
      as="button"
      textAlign="left"
      cursor="pointer"
      borderTop="1px solid"
      borderColor="rule"
      pt="1.5"
      onClick={() => offerText(r ? `fix ${stem}` : stem)}
    >
      <Flex align="baseline" gap="2.5" wrap="wrap">
        <Text as="span" color="quiet" fontSize="14px">
          {side} way
        </Text>
        {r?.raw.kind === 'pair' ? (
          <Text
            as="span"
            fontFamily="mono"
            fontWeight="700"
            fontSize={large ? '26px' : '17px'}
            whiteSpace="nowrap"
            color={r.meaning.state === 'bad' ? 'rust' : 'leaf'}
          >
            {r.raw.volts.toFixed(2)} V&ensp;{r.raw.amps.toFixed(2)} A
          </Text>
        ) : (
          <Text as="span" color="quiet" fontFamily="mono" fontSize={large ? '20px' : '16px'}>
            not read yet
          </Text>
        )}
        {r && (
          <Text as="span" fontSize="14px" color={r.meaning.state === 'bad' ? 'rust' : 'leaf'}>
            {r.meaning.words}
          </Text>
        )}
      </Flex>
    </Box>
  );
}
