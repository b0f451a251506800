'use client';

import { useMemo } from 'react';
import { useRouter } from 'next/navigation';
import { Box, Grid, Text } from '@chakra-ui/react';
import { outsideOf, packAtPort, type JobView, type KeepEvent, type OutsideView, type WayView } from '@/core/job';
import { CHARGERS, SEGMENT_WORDS } from '@/core/trace';
import { formatAmp, formatVolt } from '@/core/units';
import { TraceDrawing } from '@/drawings/trace-drawing';
import { SelectBox, useEntryOffer } from '@/ui';
import { TraceTools, useTraceDesk, withLive } from './trace-tools';

export interface PlugProofProps {
  readonly job: JobView;
  readonly portId: string;
  /** Address of another port's ways. */
  readonly hrefs: Readonly<Record<string, string>>;
  readonly onKeep: KeepEvent;
}

/** Both plug ways of a port before the work and now, side by side; new traces come by the meter's own tools. */
export function PlugProof({ job, portId, hrefs, onKeep }: PlugProofProps) {
  const { board, state } = job;
  const router = useRouter();
  const desk = useTraceDesk();
  const port = board.ports.find((p) => p.id === portId)!;
  const charger = CHARGERS[CHARGERS.length - 1];
  const [before, now] = useMemo(
    () => (['before', 'now'] as const).map((time) => outsideOf(port, state, charger, packAtPort(port, state), time)),
    [port, state, charger],
  );
  const live: OutsideView = { ...now, ways: withLive(now.ways, desk) };
  const prefix = board.ports.length > 1 ? `${port.id.toLowerCase()} ` : '';
  return (
    <>
      {board.ports.length > 1 && (
        <Box mb="2">
          <SelectBox
            label="Port"
            value={port.id}
            options={board.ports.map((p) => [p.id, `port ${p.id}`] as const)}
            onChange={(id) => router.replace(hrefs[id], { scroll: false })}
          />
        </Box>
      )}
      <TraceTools job={job} port={port} expected={now.expected} desk={desk} onKeep={onKeep} />
      <Grid templateColumns={{ base: 'minmax(0, 1fr)', md: 'minmax(0, 1fr) minmax(0, 1fr)' }} gap="5" flex="1" minH="0">
        <Time title="Before the work" outside={before} none="Not read before the work." />
        <Time title="Now" outside={live} none="Not read yet." stem={(side) => `usb ${prefix}${side.toLowerCase()} `} />
      </Grid>
    </>
  );
}

interface TimeProps {
  readonly title: string;
  readonly outside: OutsideView;
  readonly none: string;
  /** What a click on a way begins to enter. */
  readonly stem?: (side: 'A' | 'B') => string;
}

function Time({ title, outside, none, stem }: TimeProps) {
  return (
    <Box as="section" aria-label={title} display="flex" flexDirection="column" minH="0">
      <Text as="h2" fontSize="13px" fontWeight="700" color="quiet" mb="1">
        {title}
      </Text>
      {outside.ways.map((way) => (
        <Way key={way.side} way={way} expected={outside.expected} stem={stem?.(way.side)} />
      ))}
      <Text fontSize="14px" mb="2" mt="1">
        {outside.conclusion ? `${outside.conclusion.words}.` : none}
      </Text>
      {outside.ways.some((w) => w.trace) && <TraceDrawing ways={outside.ways} expected={outside.expected} />}
    </Box>
  );
}

/** One way in a line: where the meter came to rest, and what that is. */
function Way({
  way: { side, segments },
  expected,
  stem,
}: {
  way: WayView;
  expected: OutsideView['expected'];
  stem?: string;
}) {
  const { offerText } = useEntryOffer();
  const last = segments.at(-1);
  const good = last !== undefined && last.volts >= 0.9 * expected.volts && GOOD.has(last.name);
  return (
    <Box
      as={stem ? 'button' : 'div'}
      display="flex"
      w="100%"
      py="1"
      alignItems="baseline"
      textAlign="left"
      flexWrap="wrap"
      columnGap="3"
      borderTop="1px solid"
      borderColor="rule"
      cursor={stem ? 'pointer' : undefined}
      onClick={stem ? () => offerText(stem) : undefined}
    >
      <Text as="span" color="quiet" fontSize="14px" flexShrink="0">
        {side} way
      </Text>
      <Text as="span" fontFamily="mono" fontWeight="700" fontSize="17px" whiteSpace="nowrap">
        {last ? `${formatVolt(last.volts)} ${formatAmp(last.amps)}` : '–'}
      </Text>
      <Text as="span" fontSize="14px" ml="auto" textAlign="right" color={!last ? 'quiet' : good ? 'leaf' : 'rust'}>
        {last ? SEGMENT_WORDS[last.name] : 'open'}
      </Text>
    </Box>
  );
}

const GOOD: ReadonlySet<string> = new Set(['ramp', 'hold', 'fast', 'idle']);
