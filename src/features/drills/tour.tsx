'use client';

import { useState } from 'react';
import { useRouter } from 'next/navigation';
import { Box, Flex, Link, Text } from '@chakra-ui/react';
import { Key, MainButton, PageLink, PlainButton, ProblemNote, useEntryOffer } from '@/ui';
import { beginTour } from './actions';
import type { DrillView } from './queries';

/** What a newcomer is offered on the first page of an empty shop. */
export function TourOffer() {
  const router = useRouter();
  const [busy, setBusy] = useState(false);
  const [problem, setProblem] = useState<string>();
  async function begin(): Promise<void> {
    setBusy(true);
    setProblem(undefined);
    const answer = await beginTour(crypto.randomUUID());
    if (answer.saved) return router.push(`/drills/${answer.seq}?tour`);
    setBusy(false);
    setProblem(answer.message);
  }
  return (
    <Box mt="8" maxW="640px" borderTop="1.5px solid" borderColor="ink" pt="4">
      <Text as="h2" fontWeight="700" fontSize="20px">
        New here? Find a fault in ten minutes
      </Text>
      <Text mt="1" mb="4">
        A board of ours comes into the library, with a fault that nobody tells you. You measure, the program weighs, and
        at the end each step stands beside the best one. Nothing of it counts in any record.
      </Text>
      <Flex gap="4" align="baseline">
        <MainButton type="button" disabled={busy} onClick={() => void begin()}>
          {busy ? 'Draws the fault…' : 'Begin the tour'}
        </MainButton>
        <Link asChild color="copperText">
          <PageLink href="/guide">Read first</PageLink>
        </Link>
      </Flex>
      {problem && <ProblemNote text={problem} />}
    </Box>
  );
}

/** Over a drill that doubles as the tour: what is worth trying now. It can be left at any time; the drill goes on. */
export function TourNote({ drill: { id, tour } }: { drill: DrillView }) {
  const { offerText } = useEntryOffer();
  const { at, of, title, words, line } = tour;
  return (
    <Flex
      as="section"
      aria-label="The tour"
      gap="5"
      mb="4"
      px="4"
      py="3"
      bg="ground"
      borderLeft="3px solid"
      borderColor="copper"
      align="flex-start"
    >
      <Text fontFamily="mono" color="quiet" flexShrink="0">
        {at} of {of}
      </Text>
      <Box flex="1">
        <Text fontWeight="700">{title}</Text>
        <Text fontSize="15px">
          {words} {line && <Key>{line}</Key>}
        </Text>
        {at === of && (
          <Flex gap="5" mt="2" wrap="wrap">
            {[
              ['/jobs/new', 'Take a device in'],
              ['/library', 'Bring in a board of your own'],
              ['/drills', 'More drills'],
              ['/guide', 'The guide'],
            ].map(([href, name]) => (
              <Link key={href} asChild color="copperText" textDecoration="underline">
                <PageLink href={href}>{name}</PageLink>
              </Link>
            ))}
          </Flex>
        )}
      </Box>
      {line && (
        <PlainButton type="button" onClick={() => offerText(line, { take: true })}>
          Do it
        </PlainButton>
      )}
      {at < of && (
        <Link asChild color="quiet" fontSize="14px" flexShrink="0" py="1">
          <PageLink href={`/drills/${id}`}>Leave the tour</PageLink>
        </Link>
      )}
    </Flex>
  );
}
