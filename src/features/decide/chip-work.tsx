'use client';

import { useState, useTransition } from 'react';
import { Box, Text, chakra } from '@chakra-ui/react';
import type { JobView } from '@/core/job';
import { supplyId, supplyLabel } from '@/core/stock';
import { formatChance } from '@/core/units';
import { Headline, PlainButton, ProblemNote } from '@/ui';
import { chooseRoute } from './actions';
import { RouteRow, RowHeads } from './chip-row';
import type { ChoiceView, RouteView } from '@/core/choice';

/** Candidates as rows, what the place needs as columns; the best one is open with what it takes and how sure that is. */
export function ChipWork({ job, choice }: { job: JobView; choice: ChoiceView | undefined }) {
  const [problem, setProblem] = useState<string>();
  const [busy, start] = useTransition();
  if (!choice) return <NothingToChoose job={job} />;
  const { ref, routes, leaveOff } = choice;
  const chosen = job.state.route;
  const best = routes.find((r) => r.goes);
  const isChosen = (route: RouteView): boolean => chosen?.ref === ref && supplyId(chosen.supply) === route.offer;
  const take = (offer: string): void =>
    start(async () => {
      const answer = await chooseRoute(job.number, offer, crypto.randomUUID());
      setProblem(answer.saved ? undefined : answer.message);
    });
  return (
    <>
      <Headline title={headline(choice, best, job)} aside={best && !chosen && <BigChance chance={best.chance} />}>
        {chosen ? 'Another chip can still be taken; what was set aside goes back.' : explanation(best)}
      </Headline>
      {problem && <ProblemNote text={problem} />}
      {leaveOff && (
        <Text mb="3" fontSize="15px">
          {ref} is optional on this board: it may stay off after a proof.{' '}
          <PlainButton
            type="button"
            disabled={busy || chosen?.typeId === 'none'}
            onClick={() => take(supplyId(leaveOff.supply))}
            ml="2"
          >
            Leave it off
          </PlainButton>
        </Text>
      )}
      <RowHeads />
      {GROUPS.map(({ name, has }) => {
        const rows = routes.filter(has);
        if (rows.length === 0) return null;
        return (
          <Box key={name} as="section" aria-label={name}>
            <Text fontSize="13px" fontWeight="700" color="quiet" mt="3" mb="0.5">
              {name}
            </Text>
            {rows.map((route) => (
              <RouteRow
                key={route.offer}
                route={route}
                open={chosen?.ref === ref ? isChosen(route) : route === (best ?? routes[0])}
                first={route === best && !chosen}
                chosen={isChosen(route)}
                busy={busy}
                onTake={() => take(route.offer)}
              />
            ))}
          </Box>
        );
      })}
    </>
  );
}

const BigChance = ({ chance }: { chance: number }) => (
  <>
    <Text as="span" fontFamily="mono" fontWeight="700" fontSize="30px" color="ink">
      {formatChance(chance)}
    </Text>{' '}
    to work
  </>
);

const GROUPS: readonly { name: string; has: (r: RouteView) => boolean }[] = [
  { name: 'Goes', has: (r) => r.goes },
  {
    name: 'Would go, but',
    has: (r) => !r.goes && r.held !== undefined && (r.verdict === 'fits' || r.verdict === 'fitsAfter'),
  },
  { name: 'Not tried', has: (r) => r.verdict === 'notTried' },
  { name: 'Does not fit', has: (r) => r.verdict === 'doesNotFit' },
];

function headline({ ref, builtId }: ChoiceView, best: RouteView | undefined, { state: { route } }: JobView): string {
  if (route?.ref === ref)
    return `Chosen for ${ref}: ${route.supply.kind === 'none' ? supplyLabel(route.supply) : `${route.typeId}, ${supplyLabel(route.supply)}`}`;
  if (!best) return `Nothing here goes onto ${ref}`;
  const same = best.typeId === builtId ? ', as built' : '';
  return `${ref}: ${best.typeId} ${best.verdict === 'fits' ? 'fits' : 'fits after work'}${same}`;
}

function explanation(best: RouteView | undefined): string {
  if (!best) return 'The nearest ways are below, each with what stands in its way.';
  const work = best.actions.filter((a) => a.kind !== 'verify');
  const from = `${best.summary[0].toUpperCase()}${best.summary.slice(1)}. `;
  return work.length === 0
    ? `${from}Nothing else has to change.`
    : `${from}First: ${work.map((a) => a.words).join('; ')}.`;
}

function NothingToChoose({ job }: { job: JobView }) {
  const { decision } = job.state;
  const why =
    decision?.action === 'replace'
      ? `The board file lists no part type for ${decision.ref}: any part of the same value will do.`
      : decision
        ? 'The decision replaces no part.'
        : 'No likely repair replaces a part whose type matters on this board.';
  return (
    <Headline title="No chip to choose">
      {why} Places whose part type matters are the <chakra.span fontFamily="mono">slots</chakra.span> of the board file.
    </Headline>
  );
}
