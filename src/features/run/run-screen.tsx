'use client';

import { useEffect, useEffectEvent, useMemo, type ReactNode } from 'react';
import { Box, Flex, Heading, Link, Text } from '@chakra-ui/react';
import { NOMINAL_STATION, PURPOSE_WORDS, asPlacing, type GoalSets, type Station } from '@/core/heat';
import type { JobView, KeepEvent } from '@/core/job';
import { LONG_OVER_S, OVER_WORDS, RUN_MARK_WORDS, abortWords, pauseWords, type RunCard } from '@/core/run';
import { formatSeconds } from '@/core/units';
import { Controls, isNudge } from './run-controls';
import { useAwake } from './use-awake';
import { useHold, usePedal } from './use-pedal';
import { useRun, type Run } from './use-run';
import { useVoice, type Voice } from './use-voice';
import { PageLink } from '@/ui';

export interface RunProps {
  readonly job: JobView;
  readonly stations: readonly Station[];
  readonly goals: GoalSets;
  readonly onKeep: KeepEvent;
}

/** The run of a kept plan in large type: one thing to do, its clock, what comes next and the one caution. */
export function RunScreen(props: RunProps) {
  const { job } = props;
  const kept = job.state.heatPlan;
  if (!kept) {
    return (
      <Page job={job} title="Run">
        <Heading as="h1" fontSize="76px" lineHeight="1.05">
          No plan to run yet
        </Heading>
        <Text fontSize="30px" mt="4">
          A run follows the heat plan that was kept.{' '}
          <Link asChild color="copperText">
            <PageLink href={`/jobs/${job.number}/heat`}>Plan the heat and keep it</PageLink>
          </Link>
        </Text>
      </Page>
    );
  }
  return <KeptRun {...props} />;
}

function Page({ job, title, children }: { job: JobView; title: string; children: ReactNode }) {
  return (
    <Flex as="main" direction="column" minH="100dvh" px="8" py="5" bg="paper" color="ink">
      <Flex justify="space-between" align="baseline" fontSize="18px" color="quiet" mb="4">
        <Text>
          Job {String(job.number).padStart(4, '0')} · {job.board.device} · {title}
        </Text>
        <Link asChild color="copperText">
          <PageLink href={`/jobs/${job.number}/balls?view=clear`}>back to the job</PageLink>
        </Link>
      </Flex>
      {children}
    </Flex>
  );
}

function KeptRun({ job, stations, goals, onKeep }: RunProps) {
  const { plan, stationId } = job.state.heatPlan!;
  // The plan that took the part off puts it back.
  const off = job.state.absent.includes(plan.partRef);
  const kept = useMemo(() => (plan.purpose === 'lift' && off ? asPlacing(plan) : plan), [plan, off]);
  const known = stations.length > 0 ? stations : [NOMINAL_STATION];
  const heat = { stationId, station: known.find((s) => s.id === stationId), goals };
  const run = useRun(job, kept, heat, onKeep);
  const voice = useVoice();
  const pedal = usePedal();
  const running = run.state !== undefined && !run.state.ended;
  useAwake(running);
  useCues(run, voice, running);
  const words = run.announced?.computing ? undefined : run.announced?.message;
  const { say } = voice;
  useEffect(() => {
    if (words) say(words);
  }, [words, say]);
  const card = running ? run.cards[run.clock!.card] : undefined;
  const nudging = card !== undefined && isNudge(card);
  const hold = useHold(run.next, () => run.see('stuck'));

  const onKey = useEffectEvent((event: KeyboardEvent): void => {
    if (event.ctrlKey || event.metaKey || event.altKey) return;
    if (pedal.learning) {
      event.preventDefault();
      return pedal.taught(event.key);
    }
    const key = event.key === pedal.key || event.key === ' ' ? 'Enter' : event.key.toLowerCase();
    const forward = nudging ? hold.down : running ? run.next : run.begin;
    const acts: Record<string, (() => void) | undefined> = {
      Enter: forward,
      enter: forward,
      backspace: running ? run.back : undefined,
      p: running ? run.pauseOrGoOn : undefined,
      m: card?.marks[0] ? () => run.mark(card.marks[0]) : undefined,
      n: nudging ? () => run.see('stuck') : undefined,
      v: card?.hot ? () => run.see('neighbourMoves') : undefined,
      b: card?.hot ? () => run.see('browns') : undefined,
      x: running ? run.abort : undefined,
      s: voice.toggle,
    };
    const act = acts[key];
    if (!act || event.repeat) return;
    event.preventDefault();
    act();
  });
  useEffect(() => {
    window.addEventListener('keydown', onKey);
    window.addEventListener('keyup', hold.up);
    return () => {
      window.removeEventListener('keydown', onKey);
      window.removeEventListener('keyup', hold.up);
    };
  }, [hold.up]);

  return (
    <Page job={job} title={`${PURPOSE_WORDS[run.plan.purpose]} ${run.plan.partRef}`}>
      {running ? <Step run={run} /> : <Standing run={run} job={job} />}
      {run.announced && (
        <Text role="status" fontSize="30px" fontWeight="700" color={run.announced.computing ? 'quiet' : 'copperText'}>
          {run.announced.message}
        </Text>
      )}
      {run.problem && (
        <Text role="alert" color="rust" fontSize="22px" fontWeight="700">
          {run.problem}
        </Text>
      )}
      <Controls run={run} running={running} voice={voice} pedal={pedal} />
    </Page>
  );
}

/** Said and sounded when a card comes, and shortly before one ends. */
function useCues(run: Run, voice: Voice, running: boolean): void {
  const at = run.clock?.card;
  const card = at === undefined ? undefined : run.cards[at];
  const { say, tone } = voice;
  const title = running ? card?.title : undefined;
  useEffect(() => {
    if (title === undefined) return;
    tone('cue');
    say(title);
  }, [at, title, say, tone]);
  const soon = running && run.clock?.leftS !== null && run.clock !== undefined && run.clock.leftS <= SOON_S;
  useEffect(() => {
    if (soon) tone('soon');
  }, [soon, at, tone]);
}

const SOON_S = 3;

function Step({ run }: { run: Run }) {
  const { clock, cards, state } = run;
  const { card: at, leftS, cardS } = clock!;
  const card = cards[at];
  const next = cards[at + 1];
  const paused = state!.pausedAtMs !== null;
  const caution = card.hot && leftS !== null && leftS < -LONG_OVER_S ? OVER_WORDS : card.caution;
  return (
    <Flex direction="column" flex="1" justify="space-between" gap="3">
      <Flex justify="space-between" align="flex-start" gap="8">
        <Box flex="1">
          <Heading
            as="h1"
            fontSize={card.title.length > 28 ? '58px' : '76px'}
            lineHeight="1.05"
            letterSpacing="-0.01em"
          >
            {paused ? 'Paused' : card.title}
          </Heading>
          {card.air && (
            <Flex gap="10" mt="5" align="baseline" fontFamily="mono" lineHeight="1" wrap="wrap">
              <Text fontWeight="700" fontSize="92px">
                {card.air.setC} °C
              </Text>
              <Text fontSize="46px">{card.air.flowLpm} l/min</Text>
              <Text fontSize="46px">{card.air.heightMm} mm</Text>
            </Flex>
          )}
          <Text fontSize="34px" mt="5" lineHeight="1.3">
            {paused ? pauseWords(card) : card.detail}
          </Text>
        </Box>
        <Box textAlign="right" minW="260px">
          <Text
            fontFamily="mono"
            fontWeight="700"
            fontSize={leftS === null ? '96px' : '190px'}
            lineHeight="0.95"
            color={leftS !== null && leftS <= SOON_S ? 'copperText' : 'ink'}
            data-testid="clock"
          >
            {leftS === null
              ? formatSeconds(Math.floor(cardS))
              : leftS < 0
                ? `+${Math.floor(-leftS)}`
                : Math.ceil(leftS)}
          </Text>
          <Text fontSize="22px" color="quiet">
            {clockWords(card.seconds, leftS, card.gate)}
          </Text>
        </Box>
      </Flex>
      {caution && !paused && (
        <Text fontSize="36px" fontWeight="700" borderLeft="8px solid" borderColor="amber" color="amberText" pl="5">
          {caution}
        </Text>
      )}
      <Strip cards={cards} at={at} share={card.seconds === null ? 0 : Math.min(1, cardS / card.seconds)} />
      <Flex justify="space-between" align="baseline" fontSize="32px" gap="6">
        <Text>
          <Text as="span" color="quiet">
            then{' '}
          </Text>
          {next ? next.title : 'the end'}
        </Text>
        <Text color="quiet" whiteSpace="nowrap">
          {run.marks.map((m) => `${RUN_MARK_WORDS[m.mark]} at ${Math.round(m.heatS)} s`).join(' · ')}
        </Text>
      </Flex>
    </Flex>
  );
}

/** Where the run stands among its cards: those on the clock as long as they last. */
function Strip({ cards, at, share }: { cards: readonly RunCard[]; at: number; share: number }) {
  return (
    <Flex gap="1" h="12px" role="img" aria-label={`Step ${at + 1} of ${cards.length}`}>
      {cards.map((card, i) => (
        <Box key={i} bg="track" style={{ flex: card.seconds ?? UNTIMED_WIDTH_S }}>
          {i <= at && (
            <Box
              h="100%"
              bg={card.hot ? 'copper' : 'tin'}
              style={{ width: i < at ? '100%' : `${Math.max(4, 100 * share)}%` }}
            />
          )}
        </Box>
      ))}
    </Flex>
  );
}

const UNTIMED_WIDTH_S = 5;

function clockWords(seconds: number | null, leftS: number | null, gate?: boolean): string {
  if (gate) return 'confirm it to go on';
  if (seconds === null || leftS === null) return 'when you are done';
  return leftS >= 0 ? `of ${seconds} s` : 's over: your hand decides';
}

/** Before the first press, and after the last. */
function Standing({ run, job }: { run: Run; job: JobView }) {
  const { state, cards, marks, plan } = run;
  const aborted = state?.ended === 'abort';
  const stood = state && cards[Math.min(state.card, cards.length - 1)];
  return (
    <Box flex="1">
      <Heading as="h1" fontSize="76px" lineHeight="1.05">
        {state === undefined ? 'Ready to begin' : aborted ? 'Given up' : 'Done'}
      </Heading>
      <Text fontSize="30px" mt="4">
        {state === undefined
          ? `${cards.length} steps, ${formatSeconds(plan.steps.reduce((s, step) => s + step.durationS, 0))} of them on the clock. One key each.`
          : aborted
            ? abortWords(stood!)
            : 'Let it cool before anything touches it.'}
      </Text>
      {marks.length > 0 && (
        <Box mt="6" fontSize="28px">
          {marks.map((m, i) => (
            <Text key={i}>
              {RUN_MARK_WORDS[m.mark]}{' '}
              <Text as="span" fontFamily="mono" fontWeight="700">
                {m.heatS.toFixed(0)} s
              </Text>
            </Text>
          ))}
          <Link asChild color="copperText" fontSize="22px">
            <PageLink href={`/jobs/${job.number}/heat`}>hold it against the plan and take it into the station</PageLink>
          </Link>
        </Box>
      )}
    </Box>
  );
}
