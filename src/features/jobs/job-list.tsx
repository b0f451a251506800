'use client';

import { useDeferredValue, useMemo, useState } from 'react';
import NextLink from 'next/link';
import { Box, Flex, Grid, Link, Text, chakra } from '@chakra-ui/react';
import { Headline } from '@/ui';
import type { JobLine } from './queries';

const COLUMNS = '72px minmax(0, 1.2fr) minmax(0, 2fr) 110px 110px';
const jobName = (n: number): string => String(n).padStart(4, '0');

/** All jobs with a filter over number, device, symptom and outcome. Rows off the screen are not laid out. */
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
    <>
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
      <Grid
        templateColumns={COLUMNS}
        columnGap="4"
        fontSize="13px"
        fontWeight="700"
        color="quiet"
        borderBottom="1px solid"
        borderColor="rule"
        pb="1"
      >
        <span>Job</span>
        <span>Device</span>
        <span>Symptom</span>
        <span>Opened</span>
        <span>Outcome</span>
      </Grid>
      {shown.map((j) => (
        <Box key={j.number} css={{ contentVisibility: 'auto', containIntrinsicSize: 'auto 41px' }}>
          <Link asChild display="block" color="ink" _hover={{ textDecoration: 'none', bg: 'ground' }}>
            <NextLink href={`/jobs/${j.number}`} prefetch={false}>
              <Grid
                templateColumns={COLUMNS}
                columnGap="4"
                alignItems="baseline"
                py="2"
                borderBottom="1px solid"
                borderColor="rule"
              >
                <Text as="span" fontFamily="mono" fontWeight="700" fontSize="16px">
                  {jobName(j.number)}
                </Text>
                <Text as="span" fontWeight="600" truncate>
                  {j.device}
                </Text>
                <Text as="span" color="quiet" truncate>
                  {j.symptom}
                </Text>
                <Text as="span" fontFamily="mono" fontSize="14px">
                  {j.openedAt.slice(0, 10)}
                </Text>
                <Text as="span" color={j.outcome === 'repaired' ? 'leaf' : j.outcome ? 'amberText' : 'copperText'}>
                  {j.outcome ?? 'open'}
                </Text>
              </Grid>
            </NextLink>
          </Link>
        </Box>
      ))}
      {shown.length === 0 && (
        <Flex py="6" color="quiet">
          No job has “{text}” in its number, device, symptom or outcome.
        </Flex>
      )}
    </>
  );
}

function NewLink() {
  return (
    <Link asChild color="copperText" textDecoration="underline">
      <NextLink href="/jobs/new">Take a device in</NextLink>
    </Link>
  );
}
