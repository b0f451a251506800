'use client';

import { useState, useTransition } from 'react';
import { Box, Flex, Grid, Text } from '@chakra-ui/react';
import { padsOf, type Part } from '@/core/board';
import type { JobView, KeepEvent } from '@/core/job';
import {
  PLASTIC_NEAR_MM,
  cleaningPlan,
  judgeLifted,
  planSite,
  type CleaningStep,
  type LiftedVerdict,
  type SiteFigure,
} from '@/core/joints';
import { LandsDrawing } from '@/drawings/lands-drawing';
import { Headline, MainButton, PlainButton, ProblemNote } from '@/ui';
import type { SiteBench } from './queries';

export interface SiteProps {
  readonly job: JobView;
  readonly part: Part;
  readonly bench: SiteBench;
  readonly onKeep: KeepEvent;
}

/** What the site of the part needs before the new one goes down, computed from its own pads. */
export function SiteWork({ job, part, bench, onKeep }: SiteProps) {
  const [problem, setProblem] = useState<string>();
  const [busy, start] = useTransition();
  const kept = job.state.lifted[part.ref];
  const [lifted, setLifted] = useState<readonly string[]>(kept ?? []);
  const site = planSite(job.board, part, job.board.alloy, bench.practice);
  const verdict = judgeLifted(job.board, part, lifted);
  const ready = job.state.site?.ref === part.ref;
  const send = (body: Parameters<KeepEvent>[1]): void =>
    start(async () => {
      const answer = await onKeep(job.number, body, crypto.randomUUID());
      setProblem(answer.saved ? undefined : answer.message);
    });
  const flip = (pin: string): void =>
    setLifted(lifted.includes(pin) ? lifted.filter((p) => p !== pin) : [...lifted, pin]);
  const unkept = JSON.stringify(lifted) !== JSON.stringify(kept ?? []);
  return (
    <>
      <Headline title={site.headline} aside={`${part.ref}, pitch ${site.pitchMm} mm`}>
        {site.reason}{' '}
        {ready ? 'The site is marked ready.' : 'Clean when cool, look for lifted pads; then mark the site ready.'}
      </Headline>
      <Grid templateColumns={{ base: '1fr', md: 'minmax(0, 1fr) 290px' }} gap="6" mb="5">
        <LandsDrawing board={job.board} part={part} lifted={lifted} onPick={flip} />
        <Box>
          {site.figures.map((f) => (
            <Figure key={f.label} figure={f} />
          ))}
          {problem && <ProblemNote text={problem} />}
          <Box mt="4">
            {ready ? (
              <Text color="leaf" fontWeight="700">
                Site ready. Next: type “on {part.ref.toLowerCase()} new” once it is placed.
              </Text>
            ) : (
              <MainButton
                type="button"
                disabled={busy || !verdict.goesOn}
                onClick={() => send({ kind: 'site', ref: part.ref, words: readyWords(site.kind, site.joints) })}
              >
                The site is ready
              </MainButton>
            )}
          </Box>
        </Box>
      </Grid>
      <Grid templateColumns={{ base: '1fr', md: '1fr 1fr' }} gap="7">
        <Cleaning steps={cleaningOf(job, part, bench)} />
        <Lifted part={part} verdict={verdict}>
          {unkept && (
            <PlainButton
              type="button"
              mt="2"
              disabled={busy}
              onClick={() => send({ kind: 'lifted', ref: part.ref, pins: [...lifted] })}
            >
              Keep the map
            </PlainButton>
          )}
        </Lifted>
      </Grid>
    </>
  );
}

const readyWords = (kind: 'balls' | 'leadless', joints: number): string =>
  kind === 'balls' ? `${joints} balls set, site level` : `${joints} pads tinned and level`;

function cleaningOf({ board }: JobView, part: Part, { practice }: SiteBench): CleaningStep[] {
  const pads = padsOf(board, part);
  const near = board.parts.filter(
    (p) =>
      p.ref !== part.ref &&
      p.side === part.side &&
      board.packages[p.package].plastic &&
      pads.some(
        (pad) =>
          Math.hypot(pad.xMm - p.xMm, pad.yMm - p.yMm) < PLASTIC_NEAR_MM + reach(board.packages[p.package].bodyMm),
      ),
  );
  const { pitchMm } = planSite(board, part, board.alloy, practice);
  return cleaningPlan({ pitchMm, alloy: board.alloy, plasticNear: near.map((p) => p.ref) }, practice);
}

const reach = ([w, h]: readonly [number, number]): number => Math.min(w, h) / 2;

function Figure({ figure: { label, value, good } }: { figure: SiteFigure }) {
  return (
    <Flex justify="space-between" borderBottom="1px solid" borderColor="rule" py="1.5" gap="3" align="baseline">
      <Text as="span" fontSize="14px">
        {label}
      </Text>
      <Text as="span" textAlign="right" color={good ? 'leaf' : 'rust'}>
        <Text as="span" fontFamily="mono" fontWeight="700" fontSize="17px">
          {value}
        </Text>
        <Text as="span" display="block" fontSize="13px">
          {good ? 'holds' : 'does not hold'}
        </Text>
      </Text>
    </Flex>
  );
}

function Cleaning({ steps }: { steps: readonly CleaningStep[] }) {
  return (
    <Box as="section" aria-label="Making the pads level">
      <Text as="h2" fontWeight="700" mb="1">
        Making the pads level
      </Text>
      <Box as="ol" pl="5" listStyleType="decimal">
        {steps.map((step) => (
          <Box as="li" key={step.what} mb="1.5" fontSize="15px">
            <strong>{step.what}.</strong>{' '}
            <Text as="span" color="quiet">
              {step.why}
            </Text>
          </Box>
        ))}
      </Box>
    </Box>
  );
}

const KIND_WORDS = {
  noConnect: 'not connected',
  ground: 'ground',
  doubled: 'doubled',
  wire: 'wire',
  vital: 'vital',
} as const;

function Lifted({ part, verdict, children }: { part: Part; verdict: LiftedVerdict; children: React.ReactNode }) {
  return (
    <Box as="section" aria-label="Lifted pads">
      <Text as="h2" fontWeight="700" mb="1">
        Lifted pads
      </Text>
      <Text color={verdict.goesOn ? 'leaf' : 'rust'} fontWeight="700" mb="1">
        {verdict.headline}
      </Text>
      {verdict.pads.length === 0 && (
        <Text fontSize="14px" color="quiet">
          Click a pad that is off the board, or type “lifted {part.ref.toLowerCase()} 12 13” on the entry line.
        </Text>
      )}
      {verdict.pads.map((pad) => (
        <Flex key={pad.pin} gap="3" py="1" borderBottom="1px solid" borderColor="rule" align="baseline">
          <Text fontFamily="mono" fontWeight="700" minW="3em">
            {pad.pin}
          </Text>
          <Text fontSize="14px" flex="1">
            {pad.summary}
          </Text>
          <Text fontSize="13px" color={pad.kind === 'vital' ? 'rust' : 'quiet'}>
            {KIND_WORDS[pad.kind]}
          </Text>
        </Flex>
      ))}
      {children}
    </Box>
  );
}
