'use client';

import { useCallback, useEffect, useEffectEvent, useMemo, useRef, useState, type ReactNode } from 'react';
import NextLink from 'next/link';
import { Box, Flex, Heading, Link, Text, chakra } from '@chakra-ui/react';
import { NOMINAL_STATION, PURPOSE_WORDS, asPlacing, type GoalSets, type Station } from '@/core/heat';
import type { JobView, KeepEvent } from '@/core/job';
import { LONG_OVER_S, OVER_WORDS, RUN_MARK_WORDS, abortWords, pauseWords, type RunCard } from '@/core/run';
import { formatSeconds } from '@/core/units';
import { Key } from '@/ui';
import { useAwake } from './use-awake';
import { useRun, type Run } from './use-run';
import { useVoice, type Voice } from './use-voice';

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
            <NextLink href={`/jobs/${job.number}/heat`}>Plan the heat and keep it</NextLink>
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
          <NextLink href={`/jobs/${job.number}/balls?view=clear`}>back to the job</NextLink>
        </Link>
      </Flex>
      {children}
    </Flex>
  );
}

const PEDAL = 'unisolda-pedal';
const USUAL_PEDAL = 'F9';

/** The foot pedal sends one key; which one is the bench's to set. */
function usePedal(): { key: string; learning: boolean; learn: () => void; taught: (key: string) => void } {
  const [key, setKey] = useState(USUAL_PEDAL);
  const [learning, setLearning] = useState(false);
  useEffect(() => {
    // After hydration: the server does not know what this browser remembers.
    // eslint-disable-next-line react-hooks/set-state-in-effect
    setKey(localStorage.getItem(PEDAL) ?? USUAL_PEDAL);
  }, []);
  const taught = (next: string): void => {
    localStorage.setItem(PEDAL, next);
    setKey(next);
    setLearning(false);
  };
  return { key, learning, learn: () => setLearning(true), taught };
}

/** Held so long, the pedal says that nothing moves, ms. Engineering estimate. */
const HOLD_MS = 800;

/** A press that goes on when it is let go, and says something else when it is held. */
function useHold(onPress: () => void, onHeld: () => void): { readonly down: () => void; readonly up: () => void } {
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined);
  const acts = useRef({ onPress, onHeld });
  useEffect(() => {
    acts.current = { onPress, onHeld };
  });
  useEffect(() => () => clearTimeout(timer.current), []);
  const up = useCallback((): void => {
    if (timer.current === undefined) return;
    clearTimeout(timer.current);
    timer.current = undefined;
    acts.current.onPress();
  }, []);
  const down = useCallback((): void => {
    clearTimeout(timer.current);
    timer.current = setTimeout(() => {
      timer.current = undefined;
      acts.current.onHeld();
    }, HOLD_MS);
  }, []);
  return { down, up };
}

/** Whether a card waits for the hand's nudge. */
const isNudge = ({ hot, goesOn, marks }: RunCard): boolean =>
  hot && !goesOn && (marks.includes('swims') || marks.includes('seated'));

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
  const words = run.told?.computing ? undefined : run.told?.words;
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
      {run.told && (
        <Text role="status" fontSize="30px" fontWeight="700" color={run.told.computing ? 'quiet' : 'copperText'}>
          {run.told.words}
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
            <NextLink href={`/jobs/${job.number}/heat`}>hold it against the plan and take it into the station</NextLink>
          </Link>
        </Box>
      )}
    </Box>
  );
}

const BigKey = chakra('button', {
  base: {
    display: 'inline-flex',
    alignItems: 'baseline',
    gap: '2',
    fontSize: '20px',
    px: '3',
    py: '2',
    border: '1px solid',
    borderColor: 'quiet',
    borderRadius: '2px',
    cursor: 'pointer',
    _disabled: { opacity: 0.45, cursor: 'not-allowed' },
  },
});

function Controls({
  run,
  running,
  voice,
  pedal,
}: {
  run: Run;
  running: boolean;
  voice: Voice;
  pedal: ReturnType<typeof usePedal>;
}) {
  const at = run.clock?.card ?? 0;
  const card = run.cards[at];
  const paused = running && run.state!.pausedAtMs !== null;
  const [mark] = running ? card.marks : [];
  const forward = !running ? 'begin' : card.gate ? 'yes, it is so' : at < run.cards.length - 1 ? 'next' : 'finish';
  return (
    <Flex gap="3" wrap="wrap" mt="6" align="center" as="nav" aria-label="Keys of the run">
      <BigKey
        type="button"
        bg="copperText"
        color="ground"
        borderColor="copperText"
        fontWeight="700"
        onClick={running ? run.next : run.begin}
      >
        {forward}
        <Box as="span" fontFamily="mono" fontWeight="400">
          {pedal.key}, space
        </Box>
      </BigKey>
      <BigKey type="button" disabled={!mark} onClick={() => mark && run.mark(mark)}>
        {mark ? `it ${mark === 'swims' ? 'swims' : `is ${RUN_MARK_WORDS[mark]}`}` : 'mark'} <Key>M</Key>
      </BigKey>
      {running && isNudge(card) && (
        <BigKey type="button" onClick={() => run.see('stuck')}>
          not swimming <Key>N</Key> or hold
        </BigKey>
      )}
      {running && card.hot && (
        <>
          <BigKey type="button" onClick={() => run.see('neighbourMoves')}>
            a neighbour moves <Key>V</Key>
          </BigKey>
          <BigKey type="button" onClick={() => run.see('browns')}>
            browns <Key>B</Key>
          </BigKey>
        </>
      )}
      <BigKey type="button" disabled={!running} onClick={run.pauseOrGoOn}>
        {paused ? 'go on' : 'pause'} <Key>P</Key>
      </BigKey>
      <BigKey type="button" disabled={!running || at === 0} onClick={run.back}>
        back <Key>⌫</Key>
      </BigKey>
      <BigKey type="button" disabled={!running} onClick={run.abort}>
        give up <Key>X</Key>
      </BigKey>
      <BigKey type="button" aria-pressed={voice.on} onClick={voice.toggle}>
        voice {voice.on ? 'on' : 'off'} <Key>S</Key>
      </BigKey>
      <BigKey type="button" ml="auto" border="0" onClick={pedal.learn}>
        {pedal.learning ? 'press the pedal' : `pedal: ${pedal.key}`}
      </BigKey>
      <Text fontSize="16px" color="quiet" w="6em" role="status">
        {run.waiting ? 'keeping…' : running ? 'kept' : ''}
      </Text>
    </Flex>
  );
}
