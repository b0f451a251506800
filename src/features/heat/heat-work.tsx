'use client';

import { useEffect, useState } from 'react';
import dynamic from 'next/dynamic';
import { Box, Flex, Grid, Text, chakra } from '@chakra-ui/react';
import { PURPOSES, PURPOSE_WORDS, planFor, type Purpose } from '@/core/heat';
import { HeatField } from '@/drawings/heat-field';
import { Headline, PlainButton, ProblemNote } from '@/ui';
import { useHeatDesk } from './desk';
import { partOf } from './first-plan';
import { HeatSteps } from './heat-steps';
import { usePlayback } from './playback';
import { StepAxis } from './step-axis';
import { UnplacedNote } from './unplaced-note';
import type { HeatAnswerOf } from './use-heat-run';

/** The chart comes while the plan is computed. */
const HeatCurves = dynamic(() => import('@/drawings/heat-curves').then((m) => m.HeatCurves), { ssr: false });

/** The verdict, the field over the board at one moment, the curves, and the steps. */
export function HeatWork() {
  const { job, plan, station, last, preview, status } = useHeatDesk();
  const verdict = preview?.verdict ?? last?.verdict;
  return (
    <>
      <PurposeLine />
      {verdict ? (
        <Headline title={verdict.headline} aside={`${station.name}, ${Math.round(station.doubt * 100)} % doubt`}>
          {verdict.sentence}
        </Headline>
      ) : (
        <Headline title={`Computing the heat over ${plan.partRef}`} aside={station.name}>
          The board’s own copper, outline and parts under this station’s air.
        </Headline>
      )}
      <UnplacedNote board={job.board} partRef={plan.partRef} />
      <RunStatus />
      {last && <RunPictures last={last} />}
      {status.kind === 'problem' && <ProblemNote text={status.message} />}
      <StepAxis />
      <HeatSteps />
    </>
  );
}

/** The run at the shown moment: the field over the board, and the curves. */
function RunPictures({ last }: { readonly last: HeatAnswerOf }) {
  const { held, band, logged, preview } = useHeatDesk();
  const { atS } = usePlayback();
  return (
    <Grid templateColumns={{ base: '1fr', md: 'minmax(352px, 1.05fr) minmax(0, 1fr)' }} gap="5" flex="1" minH="300px">
      <Box minW="0">
        <HeatField
          board={last.board}
          run={last.run}
          verdict={last.verdict}
          partRef={last.plan.partRef}
          covers={last.plan.covers}
          offsetMm={last.plan.offsetMm}
          frame={Math.round(atS)}
        />
        <TimeSlider />
      </Box>
      <Box minW="0" minH="220px">
        <HeatCurves
          run={preview?.run ?? last.run}
          verdict={preview?.verdict ?? last.verdict}
          partRef={last.plan.partRef}
          atS={atS}
          act={ACT_WORDS[last.plan.purpose]}
          held={held && { run: held.run, partRef: held.plan.partRef }}
          band={preview ? undefined : band}
          logged={logged?.curve}
        />
      </Box>
    </Grid>
  );
}

/** What the hand does at the marked moment. */
const ACT_WORDS: Readonly<Record<Purpose, string>> = {
  lift: 'lift',
  place: 'settles',
  soften: 'clear',
  site: 'level',
  partBoards: 'lift',
  reball: 'molten',
};

/** What the plan is for; another purpose begins with its own usual steps. */
function PurposeLine() {
  const { job, station, plan, begin } = useHeatDesk();
  return (
    <Flex gap="4" mb="2" wrap="wrap" fontSize="14px" role="group" aria-label="What the plan is for">
      {PURPOSES.map((purpose) => (
        <chakra.button
          key={purpose}
          type="button"
          aria-pressed={plan.purpose === purpose}
          cursor="pointer"
          color={plan.purpose === purpose ? 'copperText' : 'quiet'}
          fontWeight={plan.purpose === purpose ? '700' : '400'}
          _hover={{ color: 'copperText' }}
          onClick={() => plan.purpose !== purpose && begin(planFor(job.board, station, plan, purpose, partOf(job)))}
        >
          {PURPOSE_WORDS[purpose]}
        </chakra.button>
      ))}
    </Flex>
  );
}

function RunStatus() {
  const { status, cancel, retry, last, preview, previewOffK } = useHeatDesk();
  if (preview)
    return (
      <Text fontSize="14px" color="quiet" mb="2" role="status">
        Dragging: curves from the reduced model; the full run follows.
      </Text>
    );
  if (status.kind === 'done')
    return previewOffK === undefined ? null : (
      <Text fontSize="14px" color="quiet" mb="2" role="status">
        The full run confirms what was dragged within {previewOffK.toFixed(1)} K.
      </Text>
    );
  const share = status.kind === 'running' ? status.doneS / status.totalS : 0;
  return (
    <Flex align="center" gap="3" mb="2" fontSize="14px" color="quiet" aria-live="polite">
      {status.kind === 'running' ? (
        <>
          <Text as="span" minW="13em">
            Simulating {Math.round(share * 100)} %
          </Text>
          <Box bg="track" h="6px" w="160px">
            <Box bg="copper" h="6px" style={{ width: `${Math.round(share * 100)}%` }} />
          </Box>
          <PlainButton type="button" onClick={cancel}>
            Cancel
          </PlainButton>
        </>
      ) : (
        <>
          <Text as="span">
            {status.kind === 'cancelled'
              ? `Cancelled. ${last ? 'The picture is the run before.' : ''}`
              : 'The run failed.'}
          </Text>
          <PlainButton type="button" onClick={retry}>
            Run again
          </PlainButton>
        </>
      )}
    </Flex>
  );
}

/** Eight simulated seconds a second: a two-minute plan plays in a quarter of a minute. */
const PLAY_STEP_MS = 125;

function TimeSlider() {
  const { atS, endS, setAtS } = usePlayback();
  const [playing, setPlaying] = useState(false);
  useEffect(() => {
    if (!playing) return;
    const timer = setTimeout(() => (atS >= endS ? setPlaying(false) : setAtS(Math.round(atS) + 1)), PLAY_STEP_MS);
    return () => clearTimeout(timer);
  }, [playing, atS, endS, setAtS]);
  return (
    <Flex align="center" gap="3" mt="1">
      <chakra.button
        type="button"
        color="copperText"
        fontWeight="700"
        cursor="pointer"
        onClick={() => {
          if (!playing && atS >= endS) setAtS(0);
          setPlaying(!playing);
        }}
      >
        {playing ? 'Stop' : 'Play'}
      </chakra.button>
      <chakra.input
        type="range"
        aria-label="Time, seconds"
        min={0}
        max={endS}
        step={1}
        value={Math.round(atS)}
        flex="1"
        accentColor="var(--u-colors-copper)"
        onChange={(e) => setAtS(Number(e.target.value))}
      />
      <Text fontFamily="mono" fontWeight="700" minW="3.4em" textAlign="right">
        {Math.round(atS)} s
      </Text>
    </Flex>
  );
}
