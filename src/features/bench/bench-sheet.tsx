import type { ReactNode } from 'react';
import { Box, Flex, Grid, Link, Text } from '@chakra-ui/react';
import { STAGES } from '@/core/job';
import { formatMinutes } from '@/core/units';
import { ColumnHeads, Headline, PageLink } from '@/ui';
import type { BenchOverview, BenchRow } from './queries';

const COLUMNS = '64px 128px 150px minmax(0, 1.1fr) minmax(0, 1fr) 70px';
/** On a narrow screen what comes next and what was found have rows of their own below the job. */
const NARROW_COLUMNS = '64px minmax(0, 1fr) auto';
const WIDE_ONLY = { base: 'none', lg: 'block' } as const;
const jobName = (n: number): string => String(n).padStart(4, '0');

/** Today at the bench: the job to take next, then the queue with what was found and what comes next. */
export function BenchSheet({ bench, tour }: { bench: BenchOverview; tour?: ReactNode }) {
  const [first, ...rest] = bench.open;
  if (!first) {
    return (
      <>
        <Headline title="The bench is clear" aside={`${bench.closedCount} closed`}>
          <NewJobLink /> when one comes in; without a file of its board, eight questions begin one.
        </Headline>
        {bench.closedCount === 0 && tour}
      </>
    );
  }
  return (
    <>
      <Headline title={first.next} aside={first.minutes === undefined ? undefined : formatMinutes(first.minutes)}>
        <Link asChild color="copperText" fontWeight="700">
          <PageLink href={`/jobs/${first.number}/${first.stage}`}>
            Job {jobName(first.number)}, {first.device}
          </PageLink>
        </Link>
        {': '}
        {first.urgent
          ? 'a swollen pack comes before everything else.'
          : `the shortest next step of the ${bench.open.length} open jobs. ${first.found}.`}
      </Headline>
      <ColumnHeads
        columns={COLUMNS}
        names={['Job', 'Device', 'On the path', 'Next', 'Found last', 'Takes']}
        lastRight
        wideOnly
        mt="5"
      />
      {[first, ...rest].map((row) => (
        <Row key={row.number} row={row} />
      ))}
      <Flex justify="space-between" mt="4" color="quiet">
        <NewJobLink />
        <span>{bench.closedCount} closed in Jobs</span>
      </Flex>
    </>
  );
}

function NewJobLink() {
  return (
    <Link asChild color="copperText" textDecoration="underline">
      <PageLink href="/jobs/new">Take a device in</PageLink>
    </Link>
  );
}

function Row({ row }: { row: BenchRow }) {
  return (
    <Link asChild display="block" color="ink" _hover={{ textDecoration: 'none', bg: 'ground' }}>
      <PageLink href={`/jobs/${row.number}/${row.stage}`}>
        <Grid
          templateColumns={{ base: NARROW_COLUMNS, lg: COLUMNS }}
          columnGap="4"
          alignItems="baseline"
          py="2.5"
          borderBottom="1px solid"
          borderColor="rule"
        >
          <Text as="span" fontFamily="mono" fontWeight="700" fontSize="17px">
            {jobName(row.number)}
          </Text>
          <Text as="span" fontWeight="700">
            {row.device}
          </Text>
          <Box display={WIDE_ONLY}>
            <PathMark index={row.stageIndex} name={STAGES[row.stageIndex].name} />
          </Box>
          <Box minW="0" gridColumn={{ base: '1 / -1', lg: 'auto' }} gridRow={{ base: '2', lg: 'auto' }}>
            <Text fontWeight="600" color={row.urgent ? 'rust' : 'ink'}>
              {row.next}
            </Text>
            <Text fontSize="13px" color="quiet" truncate>
              {row.training && 'Training: '}“{row.symptom}”
            </Text>
          </Box>
          <Text
            as="span"
            gridColumn={{ base: '1 / -1', lg: 'auto' }}
            gridRow={{ base: '3', lg: 'auto' }}
            fontSize="14px"
            color={row.problem ? 'rust' : 'quiet'}
          >
            {row.problem ?? row.found}
          </Text>
          <Text as="span" fontFamily="mono" textAlign="right" whiteSpace="nowrap">
            {row.minutes === undefined ? '' : formatMinutes(row.minutes)}
          </Text>
        </Grid>
      </PageLink>
    </Link>
  );
}

/** Nine ticks: passed stages in tin, the present one in copper with its name. */
function PathMark({ index, name }: { index: number; name: string }) {
  return (
    <Box>
      <Text as="span" fontSize="14px" fontWeight="600" color="copperText">
        {index + 1} {name}
      </Text>
      <Flex gap="3px" mt="1" aria-hidden>
        {STAGES.map((s, i) => (
          <Box key={s.id} h="5px" w="11px" bg={i === index ? 'copper' : i < index ? 'tin' : 'track'} />
        ))}
      </Flex>
    </Box>
  );
}
