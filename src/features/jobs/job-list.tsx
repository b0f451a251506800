'use client';

import { useDeferredValue, useMemo, useRef, useState } from 'react';
import NextLink from 'next/link';
import { useVirtualizer } from '@tanstack/react-virtual';
import { Box, Flex, Grid, Link, Text, chakra } from '@chakra-ui/react';
import { ColumnHeads, Headline } from '@/ui';
import type { JobLine } from './queries';

const COLUMNS = '72px minmax(0, 1.2fr) minmax(0, 2fr) 110px 110px';
const jobName = (n: number): string => String(n).padStart(4, '0');

/** All jobs with a filter over number, device, symptom and outcome. Only the rows in sight are in the page. */
export function JobList({ jobs, find, focus }: { jobs: readonly JobLine[]; find: string; focus: boolean }) {
  const [text, setText] = useState(find);
  const wanted = useDeferredValue(text.trim().toLowerCase());
  const index = useMemo(
    () => jobs.map((j) => `${jobName(j.number)} ${j.device} ${j.symptom} ${j.outcome ?? 'open'}`.toLowerCase()),
    [jobs],
  );
  const shown = useMemo(
    () => jobs.filter((_, i) => wanted.split(/\s+/).every((w) => index[i].includes(w))),
    [jobs, index, wanted],
  );
  return (
    <Flex direction="column" h="100%" minH="420px">
      <Headline title={wanted ? `${shown.length} of ${jobs.length} jobs` : `${jobs.length} jobs`} aside={<NewLink />}>
        {shown.filter((j) => !j.outcome).length} open, {shown.filter((j) => j.outcome).length} closed.
      </Headline>
      <chakra.input
        aria-label="Find a job"
        placeholder="number, device, symptom, or an outcome"
        value={text}
        autoFocus={focus}
        onChange={(e) => setText(e.target.value)}
        w="100%"
        maxW="520px"
        bg="ground"
        border="1px solid"
        borderColor="quiet"
        borderRadius="2px"
        px="3"
        py="1.5"
        mb="4"
        fontSize="17px"
        _placeholder={{ color: 'quiet', opacity: 1 }}
      />
      <ColumnHeads columns={COLUMNS} names={['Job', 'Device', 'Symptom', 'Opened', 'Outcome']} />
      <Rows jobs={shown} />
      {shown.length === 0 && (
        <Flex py="6" color="quiet">
          No job has “{text}” in its number, device, symptom or outcome.
        </Flex>
      )}
    </Flex>
  );
}

/** Height of a row, px: one line and its padding. */
const ROW_PX = 42;

/** Only the rows in sight are in the page, however many jobs there are. */
function Rows({ jobs }: { jobs: readonly JobLine[] }) {
  const frame = useRef<HTMLDivElement>(null);
  // The rule warns compilers that memoise; none is used here.
  // eslint-disable-next-line react-hooks/incompatible-library
  const rows = useVirtualizer({
    count: jobs.length,
    getScrollElement: () => frame.current,
    estimateSize: () => ROW_PX,
    overscan: 8,
  });
  return (
    <Box ref={frame} flex="1" minH="0" overflowY="auto" tabIndex={0} role="region" aria-label="The jobs">
      <Box position="relative" style={{ height: rows.getTotalSize() }}>
        {rows.getVirtualItems().map((row) => (
          <Box key={jobs[row.index].number} position="absolute" insetX="0" style={{ top: row.start, height: ROW_PX }}>
            <Row job={jobs[row.index]} />
          </Box>
        ))}
      </Box>
    </Box>
  );
}

function Row({ job }: { job: JobLine }) {
  return (
    <Link asChild display="block" color="ink" _hover={{ textDecoration: 'none', bg: 'ground' }}>
      <NextLink href={`/jobs/${job.number}`} prefetch={false}>
        <Grid
          templateColumns={COLUMNS}
          columnGap="4"
          alignItems="baseline"
          py="2"
          borderBottom="1px solid"
          borderColor="rule"
        >
          <Text as="span" fontFamily="mono" fontWeight="700" fontSize="16px">
            {jobName(job.number)}
          </Text>
          <Text as="span" fontWeight="600" truncate>
            {job.device}
          </Text>
          <Text as="span" color="quiet" truncate>
            {job.symptom}
          </Text>
          <Text as="span" fontFamily="mono" fontSize="14px">
            {job.openedAt.slice(0, 10)}
          </Text>
          <Text as="span" color={job.outcome === 'repaired' ? 'leaf' : job.outcome ? 'amberText' : 'copperText'}>
            {job.outcome ?? 'open'}
          </Text>
        </Grid>
      </NextLink>
    </Link>
  );
}

function NewLink() {
  return (
    <Link asChild color="copperText" textDecoration="underline">
      <NextLink href="/jobs/new">Take a device in</NextLink>
    </Link>
  );
}
