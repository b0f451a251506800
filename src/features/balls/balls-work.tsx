'use client';

import { useState, useTransition } from 'react';
import { Box, Flex, Grid, Text } from '@chakra-ui/react';
import { partByRef, type Part } from '@/core/board';
import type { JobView, KeepEvent } from '@/core/job';
import { planSite } from '@/core/joints';
import { LandsDrawing } from '@/drawings/lands-drawing';
import { Headline, MainButton, ProblemNote } from '@/ui';

/** The part whose site is made ready: the one off the board, else the one decided on. */
export function siteRef(job: JobView): string | undefined {
  return job.state.absent[0] ?? partByRef(job.board, job.state.decision?.ref ?? '')?.ref;
}

/** What the site of the part needs before the new one goes down, computed from its own pads. */
export function BallsWork({ job, onKeep }: { job: JobView; onKeep: KeepEvent }) {
  const ref = siteRef(job);
  const part = ref ? partByRef(job.board, ref) : undefined;
  if (!part) {
    return (
      <Headline title="No part to place yet" aside="decide first">
        Once a part is decided on, its pads, paste and balls are worked out here.
      </Headline>
    );
  }
  return <SiteSheet job={job} part={part} onKeep={onKeep} />;
}

function SiteSheet({ job, part, onKeep }: { job: JobView; part: Part; onKeep: KeepEvent }) {
  const [problem, setProblem] = useState<string>();
  const [busy, start] = useTransition();
  const site = planSite(job.board, part, job.board.alloy);
  const ready = job.state.site?.ref === part.ref;
  const keep = (): void =>
    start(async () => {
      const answer = await onKeep(
        job.number,
        { kind: 'site', ref: part.ref, words: readyWords(site.kind, site.joints) },
        crypto.randomUUID(),
      );
      setProblem(answer.kept ? undefined : answer.words);
    });
  return (
    <>
      <Headline title={site.headline} aside={`${part.ref}, pitch ${site.pitchMm} mm`}>
        {site.words}{' '}
        {ready ? 'The site is marked ready.' : 'Clean when cool, look for lifted pads; then mark the site ready.'}
      </Headline>
      <Grid templateColumns={{ base: '1fr', md: 'minmax(0, 1fr) 280px' }} gap="6" flex="1" minH="0">
        <LandsDrawing board={job.board} part={part} />
        <Box>
          {site.figures.map((f) => (
            <Flex
              key={f.label}
              justify="space-between"
              borderBottom="1px solid"
              borderColor="rule"
              py="2"
              gap="3"
              align="baseline"
            >
              <Text as="span" fontSize="14px">
                {f.label}
              </Text>
              <Text as="span" textAlign="right">
                <Text as="span" fontFamily="mono" fontWeight="700" fontSize="17px" color={f.good ? 'leaf' : 'rust'}>
                  {f.value}
                </Text>
                <Text as="span" display="block" fontSize="13px" color={f.good ? 'leaf' : 'rust'}>
                  {f.good ? 'holds' : 'does not hold'}
                </Text>
              </Text>
            </Flex>
          ))}
          {problem && <ProblemNote text={problem} />}
          <Box mt="5">
            {ready ? (
              <Text color="leaf" fontWeight="700">
                Site ready. Next: type “on {part.ref.toLowerCase()} new” once it is placed.
              </Text>
            ) : (
              <MainButton type="button" disabled={busy} onClick={keep}>
                The site is ready
              </MainButton>
            )}
          </Box>
        </Box>
      </Grid>
    </>
  );
}

const readyWords = (kind: 'balls' | 'leadless', joints: number): string =>
  kind === 'balls' ? `${joints} balls set, site level` : `${joints} pads tinned and level`;
