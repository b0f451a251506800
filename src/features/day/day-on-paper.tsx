'use client';

import { Box, Flex, Grid, Link, Text } from '@chakra-ui/react';
import { workingDay, type Slot } from '@/core/day';
import { ColumnHeads, Headline, PageLink } from '@/ui';
import type { BenchDay, DayLine } from './queries';
import { useDayClock } from './use-day-clock';

const COLUMNS = '58px 52px 56px 150px minmax(0, 1fr)';
/** On a telephone the step stands below its times. */
const NARROW = '52px 52px minmax(0, 1fr)';
const jobName = (number: number | string): string => String(number).padStart(4, '0');

/** The day's sheet, to be printed and hung up: who does what in which order, what runs by itself, what was promised. */
export function DayOnPaper({ day }: { day: BenchDay }) {
  const clock = useDayClock(day.nowAt);
  const { fromMin, people, passive } = workingDay(day.plan.slots, day.people, day.closed);
  const device = new Map(day.lines.map((l) => [String(l.number), l.device]));
  const today = clock.day(clock.at(fromMin));
  const promised = day.lines.filter((l) => l.promisedAt !== undefined && clock.day(l.promisedAt) === today);
  const awaited = day.lines.filter((l) => l.awaits && (l.awaits.overdue || clock.day(l.awaits.byAt) === today));
  const row = (s: Slot) => (
    <SheetRow key={s.step + s.job}>
      <Text fontFamily="mono">{clock.time(clock.at(s.startMin))}</Text>
      <Text fontFamily="mono">{clock.time(clock.at(s.endMin))}</Text>
      <Link asChild fontFamily="mono" fontWeight="700">
        <PageLink href={`/jobs/${s.job}`}>{jobName(s.job)}</PageLink>
      </Link>
      <Text truncate display={{ base: 'none', lg: 'block' }}>
        {device.get(s.job)}
      </Text>
      <Text gridColumn={{ base: '1 / -1', lg: 'auto' }}>{day.words[`${s.job} ${s.step}`]}</Text>
    </SheetRow>
  );
  return (
    <>
      <Headline title={today} aside={`printed ${clock.day(day.nowAt)}, ${clock.time(day.nowAt)}`}>
        {promised.length > 0
          ? `Promised for this day: ${promised.map(promiseLabel).join(', ')}.`
          : 'Nothing is promised for this day.'}{' '}
        {day.hours}
        {awaited.length > 0 &&
          ` Expected: ${awaited.map((l) => `${l.awaits!.what} for ${jobName(l.number)}${l.awaits!.overdue ? ' (overdue)' : ''}`).join(', ')}.`}
      </Headline>
      {people.map(({ person, slots }) => (
        <Part key={person} title={person} empty="No step waits for this person that day.">
          {slots.map(row)}
        </Part>
      ))}
      <Part title="Runs by itself" empty="Nothing.">
        {passive.map(row)}
      </Part>
    </>
  );
}

const promiseLabel = ({ number, device, late }: DayLine): string =>
  `${jobName(number)} ${device}${late ? ' (at risk)' : ''}`;

/** One person's part of the sheet, with a box to tick at each step; it is not torn by the end of a page. */
function Part({ title, empty, children }: { title: string; empty: string; children: React.ReactNode[] }) {
  return (
    <Box as="section" aria-label={title} mt="5" css={{ '@media print': { breakInside: 'avoid' } }}>
      <Text as="h2" fontWeight="700" fontSize="17px" mb="1">
        {title}
      </Text>
      {children.length === 0 ? (
        <Text color="quiet">{empty}</Text>
      ) : (
        <>
          <ColumnHeads columns={`14px ${COLUMNS}`} names={['', 'From', 'To', 'Job', 'Device', 'Step']} wideOnly />
          {children}
        </>
      )}
    </Box>
  );
}

const SheetRow = ({ children }: { children: React.ReactNode }) => (
  <Flex align="center" gap="4" py="1.5" borderBottom="1px solid" borderColor="rule">
    <Box w="14px" h="14px" border="1.5px solid" borderColor="ink" flexShrink="0" aria-hidden />
    <Grid templateColumns={{ base: NARROW, lg: COLUMNS }} columnGap="4" flex="1" alignItems="baseline">
      {children}
    </Grid>
  </Flex>
);
