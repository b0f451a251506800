'use client';

import type { PlanNeed, QueuePlan } from '@/application/stock/stock';
import { wayKey } from '@/core/sourcing';
import { Box, Flex, Link, Text } from '@chakra-ui/react';
import type { AllocationOption, AllocationPlan } from '@/core/allocation';
import { NEEDED_ELSEWHERE, servedBy } from '@/core/sourcing';
import { formatChance } from '@/core/units';
import { BigFigure, Headline, PageLink, PlainButton, ProblemNote } from '@/ui';
import { allocationTask } from '@/workers/allocation/task';
import { useComputed } from '@/workers/use-worker-task';

/** Which donors to open, which chip goes to which job, what to buy: the least expected cost for the whole queue. */
export function PlanPart({ view }: { view: QueuePlan }) {
  const { status, cancel, retry } = useComputed(allocationTask, view.problem);
  if (view.needs.length === 0)
    return (
      <>
        <Headline title="No job waits for a chip">Decide on a part in a job; the plan then takes it in.</Headline>
        <Served served={view.served} />
      </>
    );
  if (status.kind === 'done') return <Plan view={view} plan={status.value} tookMs={status.tookMs} />;
  return (
    <>
      <Headline title={`Planning for ${view.needs.length} places`} aside={`${view.problem.options.length} ways`}>
        Every combination of donors is weighed; a large queue takes some seconds.
      </Headline>
      {status.kind === 'problem' && <ProblemNote text={status.message} />}
      {status.kind === 'running' ? (
        <PlainButton type="button" onClick={cancel}>
          Cancel
        </PlainButton>
      ) : (
        <Flex gap="4" align="baseline">
          {status.kind === 'cancelled' && <Text role="status">Cancelled: no plan was made.</Text>}
          <PlainButton type="button" onClick={retry}>
            Plan again
          </PlainButton>
        </Flex>
      )}
    </>
  );
}

function Plan({ view, plan, tookMs }: { view: QueuePlan; plan: AllocationPlan; tookMs: number }) {
  const { problem, needs, alone } = view;
  const supplies = new Map(problem.supplies.map((s) => [s.id, s]));
  const byDonor = [...servedBy(problem, plan)];
  const others = plan.assigned.filter((o) => !plan.open.includes(supplies.get(o.supply)!.donor ?? ''));
  const shelf = others.filter((o) => supplies.get(o.supply)!.count !== undefined);
  const bought = others.filter((o) => supplies.get(o.supply)!.count === undefined);
  const line = (o: AllocationOption) => <WayLine key={o.need} option={o} view={view} />;
  return (
    <>
      <Headline title={headline(plan)} aside={`${needs.length} places, planned in ${(tookMs / 1000).toFixed(1)} s`}>
        {savingWords(plan, alone)}
      </Headline>
      <Flex gap="8" my="3" wrap="wrap">
        <BigFigure name="expected cost" value={plan.cost.toFixed(0)} />
        <BigFigure name="job by job" value={alone.cost.toFixed(0)} />
        <BigFigure name="donors to open" value={String(plan.open.length)} />
      </Flex>
      {byDonor.map(([donor, options]) => (
        <Group key={donor} title={`Open ${donor}`} aside={`serves ${options.length}`} colour="copper">
          {options.map(line)}
        </Group>
      ))}
      {shelf.length > 0 && (
        <Group title="From the shelf" colour="leaf">
          {shelf.map(line)}
        </Group>
      )}
      {bought.length > 0 && (
        <Group title="Buy" colour="tin">
          {bought.map(line)}
        </Group>
      )}
      {plan.unmet.length > 0 && (
        <Group title="Nothing for" colour="rust">
          {plan.unmet.map((id) => (
            <MissingLine key={id} need={needs.find((n) => n.id === id)!} />
          ))}
        </Group>
      )}
      <Served served={view.served} />
    </>
  );
}

function headline({ open, assigned, unmet }: AllocationPlan): string {
  const donors = open.length === 0 ? 'Open no donor' : `Open ${open.join(', ')}`;
  return unmet.length === 0
    ? `${donors}: all ${assigned.length} served`
    : `${donors}: ${assigned.length} served, ${unmet.length} not`;
}

function savingWords({ cost, unmet }: AllocationPlan, alone: QueuePlan['alone']): string {
  if (alone.unmet > unmet.length)
    return `Job by job, each with a donor of its own, ${alone.unmet - unmet.length} more would go without a chip.`;
  const saved = alone.cost - cost;
  return saved < 0.5
    ? 'Job by job would cost the same: no chip is worth sharing a donor for.'
    : `Saves ${saved.toFixed(0)} against one donor a job. No other plan serves as many for less.`;
}

function Group({
  title,
  aside,
  colour,
  children,
}: {
  title: string;
  aside?: string;
  colour: 'copper' | 'leaf' | 'tin' | 'rust';
  children: React.ReactNode;
}) {
  return (
    <Box as="section" aria-label={title} borderLeft="4px solid" borderColor={colour} pl="3" mb="4">
      <Text fontWeight="700" fontSize="17px">
        {title}{' '}
        {aside && (
          <Text as="span" color="quiet" fontSize="14px" fontWeight="400">
            {aside}
          </Text>
        )}
      </Text>
      {children}
    </Box>
  );
}

/** One job served: the chip, what changes with it, and the chance that it works. */
function WayLine({ option, view }: { option: AllocationOption; view: QueuePlan }) {
  const need = view.needs.find((n) => n.id === option.need)!;
  const way = view.ways[wayKey(option.need, option.supply)];
  return (
    <Flex gap="4" py="1.5" align="baseline" borderBottom="1px solid" borderColor="rule" wrap="wrap">
      <JobLink need={need} />
      <Text as="span" fontFamily="mono" fontWeight="700">
        {way.typeId}
      </Text>
      <Text as="span" color="quiet" fontSize="14px" flex="1">
        {way.words}
        {way.actions.length > 0 && `: ${way.actions.join('; ')}`}
      </Text>
      <Text as="span" fontSize="14px">
        works {formatChance(option.chance)}
      </Text>
      <Text as="span" fontFamily="mono" fontWeight="700" minW="3em" textAlign="right">
        {option.cost.toFixed(0)}
      </Text>
    </Flex>
  );
}

const JobLink = ({ need }: { need: PlanNeed }) => (
  <Link asChild color="ink" minW="17em">
    <PageLink href={`/jobs/${need.job}/decide?view=chip`}>{need.words}</PageLink>
  </Link>
);

const MissingLine = ({ need }: { need: PlanNeed }) => (
  <Flex gap="4" py="1.5" align="baseline" borderBottom="1px solid" borderColor="rule">
    <JobLink need={need} />
    <Text as="span" color="rust">
      {need.missing ?? NEEDED_ELSEWHERE}
    </Text>
  </Flex>
);

function Served({ served }: { served: readonly string[] }) {
  if (served.length === 0) return null;
  return (
    <Box mt="4" fontSize="14px" color="quiet">
      Set aside already: {served.join('; ')}.
    </Box>
  );
}
