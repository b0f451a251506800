'use client';

import { memo, useEffect, useReducer, useState } from 'react';
import { Box, Flex, Grid, Text } from '@chakra-ui/react';
import { FLUX_WORDS, MOST_FLIGHT_S, airSight, swims, type AirDrill } from '@/core/drill';
import { BoardDrawing } from '@/drawings/board-drawing';
import { AnswerNote, Headline, Key, MainButton, PlainButton, ProblemNote } from '@/ui';
import { finishExercise } from './actions';
import { AirDials, AirSetup } from './air-dials';
import { airBegun, airReducer, airSecond, type AirAct, type AirState, type AirTurn } from './air-flight';
import type { ExerciseView } from './queries';
import { useFlight, useFrameClock } from './use-flight';

/** A run flown by hand: what a bench shows, and no temperature. */
export function AirWork({ exercise, drill }: { exercise: ExerciseView; drill: AirDrill }) {
  const { board, id } = exercise;
  const [state, act] = useReducer(airReducer, undefined, () => airBegun(board, drill));
  const frameMs = useFrameClock(state.phase === 'flying');
  const nowS = airSecond(state, frameMs);
  const { curves, problem } = useFlight(board, drill, state, nowS);
  const [answer, setAnswer] = useState<{ saved: boolean; message: string }>();
  // One key however often it is sent: a flight is judged once.
  const [key] = useState(() => crypto.randomUUID());
  const isOver = state.phase === 'over';
  useEffect(() => {
    if (isOver) void finishExercise(id, state.flight, key).then(setAnswer);
  }, [isOver, id, state.flight, key]);
  const isTooLong = state.phase === 'flying' && nowS >= MOST_FLIGHT_S;
  useEffect(() => {
    if (isTooLong) act({ do: 'away', nowMs: performance.now() });
  }, [isTooLong]);
  const isReady = curves !== undefined;
  const nudge = (): void => {
    if (curves)
      act({
        do: 'nudge',
        nowMs: performance.now(),
        swam: swims(board, drill, curves, airSecond(state, performance.now())),
      });
  };
  useAirKeys(state, act, nudge);
  return (
    <>
      <Headline
        title={state.phase === 'setup' ? `Lift ${drill.ref} by hand` : `${Math.floor(nowS)} s`}
        aside={`${drill.name}, grade ${drill.grade}`}
      >
        {state.phase === 'setup'
          ? 'Set the air as you would begin, cover what needs it with a click, then start. The station and the board are not quite what they say.'
          : (saidWords(state) ?? 'Watch the flux. Nudge lightly when you think it swims; lift only what gives way.')}
      </Headline>
      {state.phase !== 'setup' && isReady && <Seen {...{ board, drill, curves, nowS }} />}
      {state.phase === 'flying' && (
        <Flex gap="3" mb="3" align="baseline" wrap="wrap">
          <MainButton type="button" onClick={nudge} disabled={!isReady}>
            Nudge <Key onCopper>N</Key>
          </MainButton>
          <PlainButton type="button" onClick={() => act({ do: 'lift', nowMs: performance.now() })}>
            Lift <Key>L</Key>
          </PlainButton>
          <PlainButton type="button" onClick={() => act({ do: 'away', nowMs: performance.now() })}>
            Air away, give up <Key>A</Key>
          </PlainButton>
          <Speed state={state} act={act} />
        </Flex>
      )}
      <Grid templateColumns={{ base: '1fr', lg: 'minmax(0, 1fr) 270px' }} gap="6">
        <Box minW="0" display="flex" flexDirection="column" h="calc(100dvh / var(--scale, 1) - 270px)" minH="260px">
          <FlightBoard board={board} partRef={drill.ref} covers={state.flight.covers} act={act} />
        </Box>
        <Box>
          <AirDials state={state} onTurn={(by) => act({ do: 'turn', nowMs: performance.now(), by })} />
          {state.phase === 'setup' && <AirSetup state={state} act={act} />}
          {state.phase === 'setup' && (
            <Flex mt="4" gap="3" align="baseline">
              <MainButton type="button" onClick={() => act({ do: 'begin', nowMs: performance.now() })}>
                Air on <Key onCopper>Enter</Key>
              </MainButton>
              <Speed state={state} act={act} />
            </Flex>
          )}
        </Box>
      </Grid>
      {problem && <ProblemNote text={problem} />}
      {isOver && !answer && <Text role="status">The full solver judges it…</Text>}
      {answer && !answer.saved && <AnswerNote answer={answer} />}
    </>
  );
}

/** The board under the air; drawn anew where something is covered, not at every frame of the clock. */
const FlightBoard = memo(function FlightBoard({
  board,
  partRef,
  covers,
  act,
}: {
  board: ExerciseView['board'];
  partRef: string;
  covers: readonly string[];
  act: (act: AirAct) => void;
}) {
  return (
    <BoardDrawing
      board={board}
      marks={[]}
      lit={[partRef, ...covers]}
      onPick={(name) => name !== partRef && act({ do: 'cover', ref: name.toUpperCase() })}
    />
  );
});

const saidWords = ({ said }: AirState): string | undefined =>
  said && (said.swam ? `Nudged at ${said.atS} s: it swims.` : `Nudged at ${said.atS} s: it does not move.`);

function Seen({
  board,
  drill,
  curves,
  nowS,
}: {
  board: ExerciseView['board'];
  drill: AirDrill;
  curves: Parameters<typeof airSight>[2];
  nowS: number;
}) {
  const sight = airSight(board, drill, curves, nowS);
  return (
    <Flex gap="6" mb="3" role="status" aria-label="What is to be seen" fontSize="18px" wrap="wrap">
      <Text fontWeight="700">{FLUX_WORDS[sight.flux]}</Text>
      {sight.isBrightBeside && <Text color="amberText">solder beside it turned bright</Text>}
      {sight.isBrowning && (
        <Text color="rust" fontWeight="700">
          its marking browns
        </Text>
      )}
    </Flex>
  );
}

const SPEEDS = [1, 4];

const Speed = ({ state, act }: { state: AirState; act: (act: AirAct) => void }) => (
  <Flex gap="1" role="group" aria-label="Speed">
    {SPEEDS.map((speed) => (
      <PlainButton
        key={speed}
        type="button"
        aria-pressed={state.clock.speed === speed}
        fontWeight={state.clock.speed === speed ? '700' : '400'}
        onClick={() => act({ do: 'speed', nowMs: performance.now(), speed })}
      >
        {speed}×
      </PlainButton>
    ))}
  </Flex>
);

/** By keys: arrows turn the dial and move the hand, N nudges, L lifts, A takes the air away. */
function useAirKeys(state: AirState, act: (act: AirAct) => void, nudge: () => void): void {
  useEffect(() => {
    const onKey = (event: KeyboardEvent): void => {
      if (event.ctrlKey || event.metaKey || event.altKey || isTyping(event.target)) return;
      const nowMs = performance.now();
      const by = TURNS[event.key];
      if (by) act({ do: 'turn', nowMs, by });
      else if (state.phase === 'setup' && event.key === 'Enter' && !isButton(event.target)) act({ do: 'begin', nowMs });
      else if (state.phase === 'flying' && event.key === 'n') nudge();
      else if (state.phase === 'flying' && event.key === 'l') act({ do: 'lift', nowMs });
      else if (state.phase === 'flying' && event.key === 'a') act({ do: 'away', nowMs });
      else return;
      event.preventDefault();
    };
    addEventListener('keydown', onKey);
    return () => removeEventListener('keydown', onKey);
  });
}

const TURNS: Readonly<Record<string, AirTurn>> = {
  ArrowUp: { airSetC: 10 },
  ArrowDown: { airSetC: -10 },
  ArrowRight: { heightMm: 2 },
  ArrowLeft: { heightMm: -2 },
  '+': { flowLpm: 5 },
  '-': { flowLpm: -5 },
};

const isButton = (target: EventTarget | null): boolean => target instanceof HTMLButtonElement;
const isTyping = (target: EventTarget | null): boolean =>
  target instanceof HTMLInputElement || target instanceof HTMLSelectElement || target instanceof HTMLTextAreaElement;
