'use client';

import NextLink from 'next/link';
import { Box, Grid, Link, Text } from '@chakra-ui/react';
import { DayDrawing } from '@/drawings/day-drawing';
import { ColumnHeads, Headline, usePlace, LIST_WIDTH } from '@/ui';
import type { BenchDay, DayLine } from './queries';

/** What is drawn: the rest of this working day and the next morning, minutes. */
const SHOWN_MIN = 10 * 60;
const COLUMNS = '64px 140px minmax(0, 1fr) 170px 170px 170px';

/** Who does what next, and by when each device may be promised. */
export function DaySheet({ day }: { day: BenchDay }) {
  const { place } = usePlace();
  const clockAt = (at: string): string =>
    new Intl.DateTimeFormat('en-GB', {
      timeZone: place.timeZone,
      hour: '2-digit',
      minute: '2-digit',
      hourCycle: 'h23',
    }).format(Date.parse(at));
  const dayAt = (at: string): string =>
    new Intl.DateTimeFormat('en-GB', {
      timeZone: place.timeZone,
      weekday: 'short',
      day: 'numeric',
      month: 'short',
    }).format(Date.parse(at));
  const minuteAt = (min: number): string => new Date(Date.parse(day.nowAt) + min * 60_000).toISOString();
  const active = day.plan.slots.filter((s) => s.person !== null && s.endMin > s.startMin);
  const [next] = active;
  const late = day.lines.filter((l) => l.late);
  /** The drawing begins where work does. */
  const past = Number(clockAt(day.nowAt).slice(3));
  const fromMin = next ? Math.floor((next.startMin + past) / 60) * 60 - past : 0;
  const moved = day.plan.slots.map((s) => ({ ...s, startMin: s.startMin - fromMin, endMin: s.endMin - fromMin }));
  if (!next)
    return (
      <Headline title="Nothing to plan" aside={`a new job: ${dayAt(day.nextPromiseAt)}`}>
        No open job waits for anybody.
      </Headline>
    );
  const told = day.words[`${next.job} ${next.step}`];
  return (
    <>
      <Headline
        title={`${next.person}: ${told}`}
        aside={`job ${next.job.padStart(4, '0')}, ${next.startMin === 0 ? 'now' : `${dayAt(minuteAt(next.startMin))} ${clockAt(minuteAt(next.startMin))}`}`}
      >
        {late.length > 0
          ? `${late.map((l) => String(l.number).padStart(4, '0')).join(', ')} will not be done as promised in eight of ten days. `
          : 'Every promise is kept in eight of ten days. '}
        A device that comes in now may be promised for{' '}
        <b>{`${dayAt(day.nextPromiseAt)}, ${clockAt(day.nextPromiseAt)}`}</b>.
      </Headline>
      <Box my="4">
        <DayDrawing
          slots={moved}
          people={day.people}
          closed={day.closed.map(([from, to]) => [from - fromMin, to - fromMin] as const).filter(([, to]) => to > 0)}
          spanMin={SHOWN_MIN}
          clock={(min) => clockAt(minuteAt(min + fromMin))}
          words={(s) => day.words[`${s.job} ${s.step}`]}
        />
      </Box>
      <ColumnHeads
        columns={COLUMNS}
        names={['Job', 'Device', 'Next', 'In half of all days', 'In 8 of 10 days by', 'Promised']}
      />
      {day.lines
        .toSorted((a, b) => (a.byAt < b.byAt ? -1 : 1))
        .map((line) => (
          <Line key={line.number} line={line} at={(at) => `${dayAt(at)} ${clockAt(at)}`} />
        ))}
      <Text mt="3" fontSize="13px" color="quiet">
        Minutes of each kind of step from {day.learnedFrom} closed jobs, shrunk towards estimates. Costs{' '}
        {Math.round((100 * day.plan.cost.total) / Math.max(1, day.plan.bound) - 100)} % more than what no plan beats
        {day.plan.exact ? '; this one is the best there is' : ''}. {day.hours}.{' '}
        <Link href="/day.ics" color="copperText" textDecoration="underline">
          Promises and soaks as a calendar
        </Link>
      </Text>
    </>
  );
}

function Line({ line, at }: { line: DayLine; at: (iso: string) => string }) {
  return (
    <Grid
      templateColumns={COLUMNS}
      minW={LIST_WIDTH}
      columnGap="4"
      alignItems="baseline"
      py="2"
      borderBottom="1px solid"
      borderColor="rule"
    >
      <Link asChild fontFamily="mono" fontWeight="700" color="copperText">
        <NextLink href={`/jobs/${line.number}`}>{String(line.number).padStart(4, '0')}</NextLink>
      </Link>
      <Text fontWeight="700">{line.device}</Text>
      <Text truncate>{line.next}</Text>
      <Text fontFamily="mono" fontSize="14px">
        {at(line.midAt)}
      </Text>
      <Text fontFamily="mono" fontSize="14px">
        {at(line.byAt)}
      </Text>
      <Text
        fontFamily="mono"
        fontSize="14px"
        fontWeight={line.promisedAt ? '700' : '400'}
        color={line.late ? 'rust' : line.promisedAt ? 'leaf' : 'quiet'}
      >
        {line.promisedAt ? at(line.promisedAt) : 'nothing'}
      </Text>
    </Grid>
  );
}
