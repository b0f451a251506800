'use client';

import { useEffect, useState, useTransition } from 'react';
import { Box, Flex, Text } from '@chakra-ui/react';
import { runningSoak, viewSoak, type EventBody, type JobView, type KeepEvent } from '@/core/job';
import { MainButton, PlainButton, ProblemNote } from '@/ui';

const USUAL_MINUTES = [10, 30, 60] as const;
const TICK_MS = 1000;

const COLOUR = { running: 'ink', due: 'copperText', held: 'leaf', restarted: 'rust', short: 'amberText' } as const;

/** Left on charge and watched: what restarts is noted, at one period it says why. The clock goes on by itself. */
export function SoakPart({ job, onKeep }: { job: JobView; onKeep: KeepEvent }) {
  const { soaks } = job.state;
  const running = runningSoak(soaks);
  const last = running ?? soaks.at(-1);
  const now = useNow(running !== undefined);
  const [problem, setProblem] = useState<string>();
  const [busy, start] = useTransition();
  const enter = (body: Extract<EventBody, { kind: 'soak' }>): void =>
    start(async () => {
      const answer = await onKeep(job.number, body, crypto.randomUUID());
      setProblem(answer.saved ? undefined : answer.message);
    });
  const view = last && now !== undefined ? viewSoak(last, now) : undefined;
  return (
    <Box as="section" aria-label="Soak">
      <Text as="h2" fontSize="13px" fontWeight="700" color="quiet" mb="1">
        Soak, on charge and watched
      </Text>
      {view && (
        <Text fontSize="17px" fontWeight="700" color={COLOUR[view.state]}>
          {view.label}
        </Text>
      )}
      <Flex gap="2" mt="1" wrap="wrap" fontSize="14px">
        {running ? (
          <>
            <PlainButton type="button" disabled={busy} onClick={() => enter({ kind: 'soak', act: 'restart' })}>
              It restarted
            </PlainButton>
            <MainButton type="button" disabled={busy} onClick={() => enter({ kind: 'soak', act: 'end' })}>
              End the soak
            </MainButton>
          </>
        ) : (
          USUAL_MINUTES.map((minutes) => (
            <PlainButton
              key={minutes}
              type="button"
              disabled={busy}
              onClick={() => enter({ kind: 'soak', act: 'start', minutes })}
            >
              Soak {minutes} min
            </PlainButton>
          ))
        )}
      </Flex>
      {problem && <ProblemNote text={problem} />}
    </Box>
  );
}

/** The time while a clock runs; none until the page is alive, so that server and browser draw the same. */
function useNow(ticks: boolean): string | undefined {
  const [now, setNow] = useState<string>();
  useEffect(() => {
    const tick = (): void => setNow(new Date().toISOString());
    const first = setTimeout(tick, 0);
    const timer = ticks ? setInterval(tick, TICK_MS) : undefined;
    return () => {
      clearTimeout(first);
      clearInterval(timer);
    };
  }, [ticks]);
  return now;
}
