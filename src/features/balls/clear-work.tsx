'use client';

import { useMemo, useState } from 'react';
import { Box, Flex, Grid, Link, Text } from '@chakra-ui/react';
import type { Part } from '@/core/board';
import type { ClearingPlan, DoubtfulTime, DoubtfulWindow, Guard, Threat } from '@/core/clearing';
import {
  NOMINAL_STATION,
  UNDERFILLS,
  nozzleFor,
  planLink,
  startingPlan,
  type HeatPlan,
  type UnderfillKind,
} from '@/core/heat';
import type { JobView } from '@/core/job';
import { EdgesDrawing } from '@/drawings/edges-drawing';
import { BigFigure, Headline, Named, PageLink, PlainButton, ProblemNote, SelectBox, TextInput } from '@/ui';
import { clearingTask } from '@/workers/clearing/task';
import { useComputed } from '@/workers/use-worker-task';
import type { SiteBench } from './queries';

const KINDS: readonly (readonly [string, string])[] = [
  ['none', 'none'],
  ...Object.entries(UNDERFILLS).map(([id, { words }]) => [id, words] as const),
];

/** Guards, the underfill and the lift of a part, on this station. */
export function ClearWork({ job, part, bench }: { job: JobView; part: Part; bench: SiteBench }) {
  const [kind, setKind] = useState<string>(part.underfilled ? 'unknown' : 'none');
  const [softensText, setSoftensText] = useState('');
  const softensC = softensText.trim() === '' ? undefined : Number(softensText);
  const wrong = softensC !== undefined && !(softensC >= 60 && softensC <= 210);
  const { stationId, plan: keptPlan } = job.state.heatPlan ?? {};
  const station = bench.stations.find((s) => s.id === stationId) ?? bench.stations[0] ?? NOMINAL_STATION;
  const request = useMemo(() => {
    if (wrong) return undefined;
    const { board } = job;
    const bare = startingPlan(part.ref, board.alloy, nozzleFor(station.nozzlesMm, board.packages[part.package].bodyMm));
    // Another purpose makes the planner begin the lift with its own usual steps and aim them.
    const plan: HeatPlan = keptPlan?.partRef === part.ref ? keptPlan : { ...bare, purpose: 'place' };
    const underfill = kind === 'none' ? null : (kind as UnderfillKind);
    return { board, station, plan, underfill, softensC, goals: bench.goals[plan.alloy] };
  }, [job, part, station, keptPlan, kind, softensC, wrong, bench.goals]);
  const { status, retry, last } = useComputed(clearingTask, request);
  // What was worked out stays on the screen while something else is.
  const plan = status.kind === 'problem' ? undefined : last?.value;
  return (
    <>
      {!plan && status.kind !== 'problem' && (
        <Headline title={`Working out how ${part.ref} comes off`} aside={station.name}>
          The same plan on the stations that this one may be, and its guards one by one.
        </Headline>
      )}
      {status.kind === 'problem' && (
        <>
          <ProblemNote text={status.message} />
          <PlainButton type="button" onClick={retry}>
            Try again
          </PlainButton>
        </>
      )}
      {plan && <LiftHeadline part={part} plan={plan} station={station.name} />}
      <Flex gap="4" align="flex-end" mb="4" wrap="wrap">
        <Named name="Underfill under it">
          <SelectBox value={kind} options={KINDS} onChange={setKind} />
        </Named>
        {kind !== 'none' && (
          <Named name="Softens from, °C">
            <TextInput
              w="9em"
              inputMode="decimal"
              placeholder={String(UNDERFILLS[kind as UnderfillKind].softensC)}
              value={softensText}
              onChange={(e) => setSoftensText(e.target.value)}
            />
          </Named>
        )}
        {plan && <PlanLinks job={job} plan={plan} stationId={station.id} />}
      </Flex>
      {wrong && <ProblemNote text={`Expected where it softens, 60 to 210 °C; got "${softensText}".`} />}
      {plan && <Whole job={job} part={part} plan={plan} />}
    </>
  );
}

function LiftHeadline({ part, plan: { lift, soften }, station }: { part: Part; plan: ClearingPlan; station: string }) {
  const title =
    lift.from.usualS === null
      ? `${part.ref} does not come off with this plan`
      : `${soften ? 'Clear, lift' : 'Lift'} ${part.ref} at ${Math.ceil(lift.from.usualS)} s, not before ${Math.floor(lift.from.earliestS!)}`;
  return (
    <Headline title={title} aside={station}>
      {lift.sure
        ? `Whatever this station is within its doubt, all joints are molten from second ${Math.ceil(lift.sure[0])} to ${Math.floor(lift.sure[1])}. Nudge first.`
        : 'The station’s doubt leaves no second at which all joints are surely molten: nudge, and calibrate it when there is time.'}{' '}
      Straight up, never levered sideways; large ground pads and the centre pad let go last.
    </Headline>
  );
}

function PlanLinks({ job, plan, stationId }: { job: JobView; plan: ClearingPlan; stationId: string }) {
  const heat = `/jobs/${job.number}/heat`;
  return (
    <Flex gap="4" pb="1" fontSize="14px">
      {plan.soften && (
        <Link asChild color="copperText">
          <PageLink href={heat + planLink(plan.soften.plan, stationId)}>open the clearing plan</PageLink>
        </Link>
      )}
      <Link asChild color="copperText">
        <PageLink href={heat + planLink(plan.liftPlan, stationId)}>open the lifting plan</PageLink>
      </Link>
      <Link asChild color="copperText">
        <PageLink href={`/jobs/${job.number}/run`}>run</PageLink>
      </Link>
    </Flex>
  );
}

function Whole({ job, part, plan }: { job: JobView; part: Part; plan: ClearingPlan }) {
  return (
    <>
      <Grid templateColumns={{ base: '1fr', md: 'minmax(0, 1fr) minmax(0, 1fr)' }} gap="6" mb="4" alignItems="start">
        <Box>
          <Flex gap="7" mb="3" wrap="wrap">
            <BigFigure name="all joints molten" value={timeWords(plan.lift.from)} />
            {plan.soften && <BigFigure name="underfill soft" value={windowWords(plan.soften.window)} />}
          </Flex>
          {plan.soften ? (
            <Clearing soften={plan.soften} />
          ) : (
            <Text fontSize="15px">No underfill: nothing to clear. Look along every edge before you believe it.</Text>
          )}
        </Box>
        <EdgesDrawing
          board={job.board}
          part={part}
          steps={plan.soften?.steps ?? []}
          warned={new Set(plan.threats.map((t) => t.ref))}
        />
      </Grid>
      <Grid templateColumns={{ base: '1fr', md: '1fr 1fr' }} gap="7">
        <Threats threats={plan.threats} />
        <Guards guards={plan.guards} />
      </Grid>
    </>
  );
}

function timeWords({ usualS, earliestS, latestS }: DoubtfulTime): string {
  if (usualS === null) return 'never';
  const late = latestS === null ? '…' : Math.ceil(latestS);
  return `${Math.round(usualS)} s (${Math.floor(earliestS!)}–${late})`;
}

const windowWords = ({ from, until }: DoubtfulWindow): string =>
  from.usualS === null ? 'never' : `${Math.round(from.usualS)}–${Math.round(until.usualS!)} s`;

function Clearing({ soften }: { soften: NonNullable<ClearingPlan['soften']> }) {
  return (
    <>
      <Text fontSize="15px" mb="2">
        {soften.seconds} s of work
        {soften.warmings === null
          ? ', but no second at which it is surely soft on this station'
          : soften.warmings === 1
            ? ', in one warming'
            : `, in ${soften.warmings} warmings`}
        . Solder stays {Math.round(soften.window.verdict.ownLimitC! - soften.window.verdict.hottestPeakC)} K below its
        limit.
      </Text>
      <Box as="ol" aria-label="Order of clearing" pl="5" listStyleType="decimal">
        {soften.steps.map((step) => (
          <Box as="li" key={step.name} fontSize="15px" mb="0.5">
            <strong>{step.name}</strong>, {step.seconds} s:{' '}
            <Text as="span" color="quiet">
              {step.tool}
            </Text>
          </Box>
        ))}
      </Box>
      <Text mt="2" fontSize="14px" borderLeft="3px solid" borderColor="amber" pl="3">
        <strong>Stop when:</strong> {soften.stopSigns.join(' ')}
      </Text>
    </>
  );
}

const FROM_WORDS = { heat: 'heat', air: 'air', tool: 'tool', shield: 'shield' } as const;
const MOST_THREATS = 6;

function Threats({ threats }: { threats: readonly Threat[] }) {
  const single = threats.filter((t) => t.from !== 'air');
  const blown = threats.filter((t) => t.from === 'air').map((t) => t.ref);
  return (
    <Box as="section" aria-label="Who has to fear what">
      <Text as="h2" fontWeight="700" mb="1">
        Who has to fear what
      </Text>
      {single.slice(0, MOST_THREATS).map((t) => (
        <Flex key={`${t.ref} ${t.from}`} gap="3" py="1" borderBottom="1px solid" borderColor="rule" align="baseline">
          <Text fontFamily="mono" fontWeight="700" minW="3em">
            {t.ref}
          </Text>
          <Text fontSize="14px" flex="1">
            {t.what}: {t.summary}
          </Text>
          <Text fontSize="13px" color="quiet">
            {FROM_WORDS[t.from]}
          </Text>
        </Flex>
      ))}
      {blown.length > 0 && (
        <Text fontSize="14px" py="1">
          {blown.slice(0, 8).join(', ')}
          {blown.length > 8 ? ` and ${blown.length - 8} more` : ''} melt too: less air, or they are blown away.
        </Text>
      )}
      {threats.length === 0 && <Text fontSize="14px">Nobody near has anything to fear.</Text>}
    </Box>
  );
}

function Guards({ guards }: { guards: readonly Guard[] }) {
  return (
    <Box as="section" aria-label="Guards, as simulated">
      <Text as="h2" fontWeight="700" mb="1">
        Guards, as simulated
      </Text>
      {guards.map((g) => (
        <Flex key={g.what} gap="3" py="1" borderBottom="1px solid" borderColor="rule" align="baseline">
          <Text fontSize="14px" flex="1">
            {g.what}
          </Text>
          <Text fontFamily="mono" fontSize="15px" whiteSpace="nowrap">
            {g.spares.ref} {g.spares.byK >= 0 ? '−' : '+'}
            {Math.abs(g.spares.byK).toFixed(0)} K
          </Text>
          <Text fontSize="13px" minW="8em" textAlign="right" color={g.holds ? 'leaf' : 'quiet'}>
            {g.laterS === null ? 'then never molten' : `${g.laterS >= 0 ? '+' : '−'}${Math.abs(g.laterS).toFixed(0)} s`}
            {g.holds ? ', holds' : ''}
          </Text>
        </Flex>
      ))}
      {guards.length === 0 && <Text fontSize="14px">No guard is needed against the heat.</Text>}
    </Box>
  );
}
