'use client';

import { useEffect, useRef, useState, useTransition } from 'react';
import { useRouter } from 'next/navigation';
import { Box, Flex, Grid, Link, Text, chakra } from '@chakra-ui/react';
import { ColumnHeads, Headline, PageLink, usePlace } from '@/ui';
import type { JobLine, JobPage } from './queries';

/** On a narrow screen the symptom has a row of its own below the job. */
const NARROW_COLUMNS = '64px minmax(0, 1fr) auto';
const COLUMNS = '72px minmax(0, 1.2fr) minmax(0, 2fr) 110px 110px';
const jobName = (n: number): string => String(n).padStart(4, '0');

const count = (n: number): string => n.toLocaleString('en');

/** Time after the last key until the server is asked, ms. */
const TYPING_MS = 150;

const addressOf = (find: string, page = 0): string =>
  `/jobs?find=${encodeURIComponent(find)}${page > 0 ? `&page=${page}` : ''}`;

/** All jobs by number, device, symptom and outcome, a page at a time; the server looks, however many there are. */
export function JobList({ list, focus }: { list: JobPage; focus: boolean }) {
  const router = useRouter();
  const [text, setText] = useState(list.find);
  const [isLooking, start] = useTransition();
  const asked = useRef(list.find);
  useEffect(() => {
    if (text.trim() === asked.current.trim()) return;
    const timer = setTimeout(() => {
      asked.current = text;
      start(() => router.replace(addressOf(text), { scroll: false }));
    }, TYPING_MS);
    return () => clearTimeout(timer);
  }, [text, router]);
  const isCurrent = !isLooking && text.trim() === list.find.trim();
  const [only] = list.jobs;
  return (
    <Flex direction="column" h="100%" minH="420px">
      <Headline
        title={list.find.trim() ? `${count(list.total)} of ${count(list.all)} jobs` : `${count(list.total)} jobs`}
        aside={<NewLink />}
      >
        {count(list.open)} open, {count(list.total - list.open)} closed.
        {list.total === 1 && ' Enter opens it.'}
      </Headline>
      <chakra.input
        aria-label="Find a job"
        placeholder="number, device, symptom, or an outcome"
        value={text}
        autoFocus={focus}
        onChange={(e) => setText(e.target.value)}
        onKeyDown={(e) => {
          if (e.key === 'Enter' && isCurrent && list.total === 1) router.push(`/jobs/${only.number}`);
        }}
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
      <ColumnHeads columns={COLUMNS} names={['Job', 'Device', 'Symptom', 'Opened', 'Outcome']} wideOnly />
      <Box flex="1" minH="0" overflowY="auto" tabIndex={0} role="region" aria-label="The jobs">
        {list.jobs.map((job) => (
          <Row key={job.number} job={job} />
        ))}
        {list.jobs.length === 0 && (
          <Flex py="6" color="quiet">
            No job has “{list.find}” in its number, device, symptom or outcome.
          </Flex>
        )}
      </Box>
      {list.pages > 1 && <Pages list={list} />}
    </Flex>
  );
}

/** The way to older and newer pages of the list. */
function Pages({ list: { find, page, pages } }: { list: JobPage }) {
  return (
    <Flex as="nav" aria-label="Pages" gap="4" pt="3" align="baseline">
      {page > 0 && <Turn href={addressOf(find, page - 1)}>Newer</Turn>}
      <Text color="quiet">
        Page {page + 1} of {pages}
      </Text>
      {page < pages - 1 && <Turn href={addressOf(find, page + 1)}>Older</Turn>}
    </Flex>
  );
}

const Turn = ({ href, children }: { href: string; children: string }) => (
  <Link asChild color="copperText" textDecoration="underline">
    <PageLink href={href}>{children}</PageLink>
  </Link>
);

function Row({ job }: { job: JobLine }) {
  const { day } = usePlace();
  return (
    <Link asChild display="block" color="ink" _hover={{ textDecoration: 'none', bg: 'ground' }}>
      <PageLink href={`/jobs/${job.number}`}>
        <Grid
          templateColumns={{ base: NARROW_COLUMNS, lg: COLUMNS }}
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
          <Text
            as="span"
            gridColumn={{ base: '1 / -1', lg: 'auto' }}
            gridRow={{ base: '2', lg: 'auto' }}
            color={job.problem ? 'rust' : 'quiet'}
            truncate
          >
            {job.problem ?? job.symptom}
          </Text>
          <Text as="span" display={{ base: 'none', lg: 'inline' }} fontFamily="mono" fontSize="14px">
            {day(job.openedAt)}
          </Text>
          <Text as="span" color={job.outcome === 'repaired' ? 'leaf' : job.outcome ? 'amberText' : 'copperText'}>
            {job.outcome ?? 'open'}
            {job.training && ', training'}
          </Text>
        </Grid>
      </PageLink>
    </Link>
  );
}

function NewLink() {
  return (
    <Link asChild color="copperText" textDecoration="underline">
      <PageLink href="/jobs/new">Take a device in</PageLink>
    </Link>
  );
}
