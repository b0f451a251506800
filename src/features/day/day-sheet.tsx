'use client';

import { Box, Grid, Link, Text } from '@chakra-ui/react';
import { DayDrawing } from '@/drawings/day-drawing';
import { ColumnHeads, Headline, LIST_WIDTH, PageLink } from '@/ui';
import type { BenchDay, DayLine } from './queries';
import { useDayClock } from './use-day-clock';

/** What is drawn: the rest of this working day and the next morning, minutes. */
const SHOWN_MIN = 10 * 60;
const COLUMNS = '64px 140px minmax(0, 1fr) 170px 170px 170px';

/** Who does what next, and by when each device may be promised. */
export function DaySheet({ day }: { day: BenchDay }) {
  const { time: clockAt, day: dayAt, at: minuteAt } = useDayClock(day.nowAt);
  const active = day.plan.slots.filter((s) => s.person !== null && s.endMin > s.startMin);
  const [next] = active;
  const late = day.lines.filter((l) => l.late);
  const overdue = day.lines.filter((l) => l.awaits?.overdue);
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
        {overdue.map(
          ({ number, awaits }) =>
            `${awaits!.what} for ${String(number).padStart(4, '0')} was expected ${dayAt(awaits!.byAt)}: ask where it is, then “awaits here” or a new day. `,
        )}
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
          <Line key={line.number} line={line} at={(at) => `${dayAt(at)} ${clockAt(at)}`} dayAt={dayAt} />
        ))}
      <Text mt="3" fontSize="13px" color="quiet">
        Minutes of each kind of step from {day.learnedFrom} closed jobs, shrunk towards estimates. Costs{' '}
        {Math.round((100 * day.plan.cost.total) / Math.max(1, day.plan.bound) - 100)} % more than what no plan beats
        {day.plan.exact ? '; this one is the best there is' : ''}. {day.hours}.{' '}
        <Link asChild color="copperText" textDecoration="underline">
          <PageLink href="/day">The day’s sheet, to be printed</PageLink>
        </Link>{' '}
        ·{' '}
        <Link href="/day.ics" color="copperText" textDecoration="underline">
          Promises and soaks as a calendar
        </Link>
      </Text>
    </>
  );
}

interface LineProps {
  readonly line: DayLine;
  readonly at: (iso: string) => string;
  readonly dayAt: (iso: string) => string;
}

function Line({ line, at, dayAt }: LineProps) {
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
        <PageLink href={`/jobs/${line.number}`}>{String(line.number).padStart(4, '0')}</PageLink>
      </Link>
      <Text fontWeight="700">{line.device}</Text>
      {line.awaits ? (
        <Text truncate color={line.awaits.overdue ? 'rust' : undefined}>
          waits for {line.awaits.what}, {line.awaits.overdue ? 'was expected' : 'expected'} {dayAt(line.awaits.byAt)}
        </Text>
      ) : (
        <Text truncate>{line.next}</Text>
      )}
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
