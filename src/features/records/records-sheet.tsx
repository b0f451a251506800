'use client';

import { useRouter } from 'next/navigation';
import { Box, Flex, Grid, Link, Text } from '@chakra-ui/react';
import { formatInHundred, formatMinutes, isoDayIn } from '@/core/units';
import { ColumnHeads, Headline, Money, Named, PageLink, SelectBox, usePlace, LIST_WIDTH } from '@/ui';
import type { Records } from './queries';

const GROUP_NAMES = [
  ['board', 'board'],
  ['cause', 'what was mended'],
  ['person', 'person'],
  ['month', 'month'],
  ['source', 'chip and where it came from'],
  ['station', 'hot-air station'],
] as const;

const COLUMNS = 'minmax(0, 1.4fr) 60px minmax(0, 1.3fr) 110px 150px 120px 90px';

const addressOf = (by: string, boardId: string | undefined): string =>
  `/records?by=${by}${boardId === undefined ? '' : `&board=${encodeURIComponent(boardId)}`}`;

/** Cure rates, comebacks, minutes and money of the closed jobs, with the range that so few jobs leave open. */
export function RecordsSheet({ records }: { records: Records }) {
  const router = useRouter();
  const { place, day } = usePlace();
  const { all, rows, by, boards, boardId, promised, change } = records;
  if (!all)
    return (
      <Headline title="No job was closed yet" aside="0 closed">
        With the first closed job the records begin: what was at fault, what it read, what it took.
      </Headline>
    );
  const year = isoDayIn(place, new Date().toISOString()).slice(0, 4);
  return (
    <>
      <Headline
        title={`${all.repaired} of ${all.jobs} repaired, ${all.cameBack === 1 ? 'one' : all.cameBack} came back`}
        aside={`${formatMinutes(all.minutes)} at the bench in the middle`}
      >
        {`With so many jobs the true share of cures lies between ${formatInHundred(all.cure.low)} and ${formatInHundred(all.cure.high)}. `}
        {change && <strong>Since {day(change.since)} it is another one: look at what changed then. </strong>}
        {promised && toldWords(promised)}
      </Headline>
      <Flex gap="4" align="flex-end" mb="2" wrap="wrap">
        <Named name="Put together by">
          <SelectBox value={by} options={GROUP_NAMES} onChange={(next) => router.push(addressOf(next, boardId))} />
        </Named>
        <Named name="Board">
          <SelectBox
            value={boardId ?? ''}
            options={[['', 'all boards'], ...boards.map((b) => [b.id, b.name] as const)]}
            onChange={(next) => router.push(addressOf(by, next || undefined))}
          />
        </Named>
        <Link href={`/records/cures.csv${addressOf(by, boardId).slice('/records'.length)}`} download color="copperText">
          This table as CSV
        </Link>
        <Link asChild color="copperText">
          <PageLink href={`/records/year.pdf?year=${year}`}>The sheet of {year} (PDF)</PageLink>
        </Link>
      </Flex>
      <ColumnHeads
        columns={COLUMNS}
        names={['', 'Jobs', 'Repaired, and what it may be', 'Came back', 'Minutes, 8 of 10', 'Paid', 'Promises']}
        lastRight
      />
      {rows.map((r) => (
        <Row key={r.name} row={r} />
      ))}
    </>
  );
}

function toldWords({ quotes, toldChance, was, promised, kept }: NonNullable<Records['promised']>): string {
  const chance =
    quotes === 0
      ? ''
      : `Quotes told ${formatInHundred(toldChance)}, it was ${formatInHundred(was.low)} to ${formatInHundred(was.high)}. `;
  return promised === 0
    ? chance
    : `${chance}Of ${promised} promises ${formatInHundred(kept.low)} to ${formatInHundred(kept.high)} are kept.`;
}

function Row({ row: r }: { row: Records['rows'][number] }) {
  return (
    <Grid
      templateColumns={COLUMNS}
      minW={LIST_WIDTH}
      columnGap="4"
      alignItems="center"
      py="1.5"
      borderBottom="1px solid"
      borderColor="rule"
      color={r.isThin ? 'quiet' : 'ink'}
    >
      <Text fontWeight="700" lineHeight="1.3">
        {r.name}
        {r.isThin && (
          <Text as="span" fontWeight="400" fontSize="13px">
            , too few to say
          </Text>
        )}
      </Text>
      <Text fontFamily="mono">{r.jobs}</Text>
      <Box>
        <Text as="span" fontFamily="mono" fontWeight="700">
          {formatInHundred(r.repaired / r.jobs)}
        </Text>
        <RangeBar low={r.cure.low} high={r.cure.high} mean={r.repaired / r.jobs} />
      </Box>
      <Text fontFamily="mono">{r.repaired === 0 ? '–' : `${r.cameBack} of ${r.repaired}`}</Text>
      <Text fontFamily="mono" fontSize="14px">
        {Math.round(r.minutes)} ({Math.round(r.minutesLow)}–{Math.round(r.minutesHigh)})
      </Text>
      <Text fontFamily="mono">{r.money === undefined ? '–' : <Money amount={r.money} />}</Text>
      <Text fontFamily="mono" textAlign="right">
        {r.promised === 0 ? '–' : `${r.kept} of ${r.promised}`}
      </Text>
    </Grid>
  );
}

/** A share with what it may be: the range as a bar on the line from 0 to 1, the share itself as a tick. */
function RangeBar({ low, high, mean }: { low: number; high: number; mean: number }) {
  const at = (share: number): string => `${(100 * share).toFixed(1)}%`;
  return (
    <Box bg="track" h="7px" mt="1" position="relative" role="presentation">
      <Box position="absolute" bg="leaf" opacity="0.45" h="7px" style={{ left: at(low), width: at(high - low) }} />
      <Box position="absolute" bg="ink" w="2px" h="11px" top="-2px" style={{ left: at(mean) }} />
    </Box>
  );
}
