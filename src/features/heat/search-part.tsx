'use client';

import { Box, Flex, Text } from '@chakra-ui/react';
import type { FoundPlan } from '@/core/heat';
import { formatSeconds } from '@/core/units';
import { FigureLine, MainButton, SidebarPart, PlainButton, ProblemNote } from '@/ui';
import { searchTask, type SearchProgress } from '@/workers/search/task';
import { useWorkerTask } from '@/workers/use-worker-task';
import { useHeatDesk } from './desk';
import type { Opening } from './use-opening';

/** Searches plate, nozzle, flow, height, dials, durations and covers for the most margin; the answer is taken over or left. */
export function SearchPart() {
  const { board, station, plan, goals, setPlan, opening } = useHeatDesk();
  const { status, start, cancel, reset } = useWorkerTask(searchTask);
  const isFresh = status.kind === 'idle' || status.kind === 'cancelled';

  return (
    <SidebarPart title="A plan with more margin">
      {isFresh && opening && <Opened opening={opening} shown={opening.found?.plan === plan} />}
      {status.kind === 'running' && <Running {...status.progress} tookMs={status.tookMs} onCancel={cancel} />}
      {status.kind === 'problem' && <ProblemNote text={status.message} />}
      {status.kind === 'done' && (
        <Found
          found={status.value}
          doubt={station.doubt}
          onTake={() => {
            setPlan(status.value.plan);
            reset();
          }}
        />
      )}
      {status.kind !== 'running' && (
        <PlainButton type="button" mt="2" onClick={() => void start({ board, station, plan, goals })}>
          {isFresh ? 'Search a plan' : 'Search again'}
        </PlainButton>
      )}
    </SidebarPart>
  );
}

/** What the look that begins with the part has found. */
function Opened({ opening: { found, looking, problem }, shown }: { opening: Opening; shown: boolean }) {
  if (problem) return <ProblemNote text={problem} />;
  if (!found || (!shown && !looking)) return null;
  return (
    <>
      <Margin margin={found} holdsName={looking ? 'Margin so far' : 'Margin'} />
      <Text fontSize="14px" role="status">
        {looking ? 'Looking for a plan with more.' : `Most fragile: ${found.fragile}.`}
      </Text>
      {found.guard && (
        <Text fontSize="14px" mt="1" color="amberText">
          {found.guard}
        </Text>
      )}
    </>
  );
}

function Margin({ margin: { marginK }, holdsName = 'Margin' }: { margin: { marginK: number }; holdsName?: string }) {
  const holds = marginK >= 0;
  return (
    <FigureLine
      name={holds ? holdsName : 'Best found misses by'}
      value={`${Math.abs(marginK).toFixed(1)} K`}
      colour={holds ? 'leaf' : 'rust'}
    />
  );
}

function Running({
  tried = 0,
  most = 1,
  tookMs = 0,
  onCancel,
}: Partial<SearchProgress> & { tookMs?: number; onCancel: () => void }) {
  const share = tried / most;
  return (
    <>
      <Text fontSize="14px" role="status">
        Tried {tried} of at most {most}
        {tried > 1 && `, ${formatSeconds((tookMs / tried / 1000) * (most - tried))} left at most`}
      </Text>
      <Box bg="track" h="6px" my="1.5">
        <Box bg="copper" h="6px" style={{ width: `${Math.round(100 * share)}%` }} />
      </Box>
      <PlainButton type="button" onClick={onCancel}>
        Cancel
      </PlainButton>
    </>
  );
}

function Found({ found, doubt, onTake }: { found: FoundPlan; doubt: number; onTake: () => void }) {
  const [least, most] = found.underDoubtK;
  return (
    <>
      <Margin margin={found} />
      <Text fontSize="14px">
        Most fragile: {found.fragile}. Over the stations this one may be, {Math.round(100 * doubt)} % doubt:{' '}
        {signed(least)} to {signed(most)}.
      </Text>
      {found.guard && (
        <Text fontSize="14px" mt="1" color="amberText">
          {found.guard}
        </Text>
      )}
      <Text fontSize="14px" mt="1">
        {found.changes.length > 0 ? `${found.changes.join('; ')}.` : 'Nothing that was tried is better.'}
      </Text>
      {found.changes.length > 0 && (
        <Flex mt="2">
          <MainButton type="button" onClick={onTake}>
            {found.guard ? 'Take this plan with its guard' : 'Take this plan'}
          </MainButton>
        </Flex>
      )}
    </>
  );
}

const signed = (k: number): string => `${k >= 0 ? '+' : '−'}${Math.abs(k).toFixed(0)} K`;
