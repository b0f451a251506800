'use client';

import { useState, useTransition, type ReactNode } from 'react';
import { Box, Flex, Text, chakra } from '@chakra-ui/react';
import { decisionLabel, type EventBody, type JobView, type KeepEvent } from '@/core/job';
import { repairAction, targetName, type BoardTarget, type Repair } from '@/core/diagnose';
import { formatChance, formatInHundred, formatMinutes } from '@/core/units';
import { Headline, MainButton, PlainButton, ProblemNote, Money } from '@/ui';

type Decision = Extract<EventBody, { kind: 'decision' }>;

/** Repairs by what they cure for what they cost, beside the best test and beside stopping. */
export function DecideWork({ job, onKeep }: { job: JobView; onKeep: KeepEvent }) {
  const [problem, setProblem] = useState<string>();
  const [busy, start] = useTransition();
  const { decision } = job.state;
  const keep = (body: Decision): void =>
    start(async () => {
      const answer = await onKeep(job.number, body, crypto.randomUUID());
      setProblem(answer.saved ? undefined : answer.message);
    });
  const best = job.workNow?.repair ?? job.repairs[0];
  return (
    <>
      <Headline
        title={decision ? decisionLabel(job.board, decision) : headline(job, best)}
        aside={decision ? 'decided' : best && formatMinutes(best.minutes)}
      >
        {decision ? 'Another route can still be taken; the earlier decision stays in the record.' : comparison(job)}
      </Headline>
      <chakra.table w="100%" mt="2" css={{ borderCollapse: 'collapse' }}>
        <chakra.thead>
          <chakra.tr textAlign="left" fontSize="13px" color="quiet">
            {COLUMNS.map((h) => (
              <chakra.th
                key={h}
                fontWeight="700"
                pb="1.5"
                borderBottom="1px solid"
                borderColor="rule"
                textAlign={h === 'Route' || h === '' ? 'left' : 'right'}
              >
                {h}
              </chakra.th>
            ))}
          </chakra.tr>
        </chakra.thead>
        <chakra.tbody>
          {job.repairs.map((r) => (
            <RouteRow
              key={r.label}
              job={job}
              repair={r}
              first={r === best && !decision && !job.tooDear}
              busy={busy}
              onTake={keep}
            />
          ))}
        </chakra.tbody>
      </chakra.table>
      {problem && <ProblemNote text={problem} />}
      <Flex mt="5" gap="4" align="baseline">
        <PlainButton
          type="button"
          disabled={busy}
          onClick={() => keep({ kind: 'decision', action: 'stop', ref: null })}
        >
          Stop this job
        </PlainButton>
        <Box color="quiet" fontSize="14px" maxW="46em">
          Stop for a bent board with faults that come and go, for cracked inner traces, or when the device is worth less
          than what it needs. Hours already spent do not count.
        </Box>
      </Flex>
    </>
  );
}

const COLUMNS = ['Route', 'Cures', 'Minutes', 'Parts', 'Harm', ''];

function headline(job: JobView, best: Repair | undefined): string {
  if (job.tooDear)
    return `Advise stopping: about ${Math.round(job.tooDear.cost)} still to spend on a device worth ${job.tooDear.worth}`;
  return best ? `${best.label}: cures ${formatInHundred(best.cureChance)}` : 'Nothing to decide yet';
}

/** Work now against the best test first, on one scale. */
function comparison({ workNow, tests: [test], expectedMinutes }: JobView): string {
  if (workNow) {
    const instead =
      workNow.insteadOf === undefined
        ? 'No test would change the odds any more.'
        : `The best test first would take ${formatMinutes(workNow.insteadOf)}.`;
    return `Working now ends the job in about ${formatMinutes(workNow.expectedMinutes)}, parts and risk counted. ${instead}`;
  }
  if (!test) return 'No test would change the odds any more.';
  const first = `Measure first: ${test.title}, ${formatMinutes(test.minutes)}, ${test.bits.toFixed(2)} bit.`;
  return expectedMinutes === undefined
    ? first
    : `${first} The job then ends in about ${formatMinutes(expectedMinutes)}, parts and risk counted.`;
}

/** One route with what it costs and the button that takes it; a pair is begun with its first part. */
function RouteRow({
  job,
  repair,
  first,
  busy,
  onTake,
}: {
  job: JobView;
  repair: Repair;
  first: boolean;
  busy: boolean;
  onTake: (body: Decision) => void;
}) {
  const chosen = isChosen(job, repair);
  const what = repair.targets.map((t) => job.board.parts.find((p) => p.ref === targetName(t))?.what).filter(Boolean);
  return (
    <chakra.tr borderBottom="1px solid" borderColor="rule">
      <chakra.td py="2.5">
        <Text as="span" fontWeight="700" color={chosen ? 'copperText' : 'ink'}>
          {repair.label}
        </Text>{' '}
        <Text as="span" color="quiet">
          {what.join(', ')}
        </Text>
      </chakra.td>
      <Figure>{formatChance(repair.cureChance)}</Figure>
      <Figure>{Math.round(repair.minutes)}</Figure>
      <Figure>
        <Money amount={repair.price} />
      </Figure>
      <Figure>{`${(100 * repair.harm).toFixed(1)} %`}</Figure>
      <chakra.td textAlign="right" pl="4">
        {chosen ? (
          <Text as="span" color="copperText" fontWeight="700">
            chosen
          </Text>
        ) : (
          <Choose first={first} busy={busy} onClick={() => onTake(decisionFor(repair))} />
        )}
      </chakra.td>
    </chakra.tr>
  );
}

function isChosen({ state: { decision } }: JobView, repair: Repair): boolean {
  const { action, ref, with: second } = decisionFor(repair);
  return (
    decision?.action === action &&
    decision.ref === ref &&
    decision.with?.action === second?.action &&
    decision.with?.ref === second?.ref
  );
}

/** A target as a decision names it. */
const asDecided = (target: BoardTarget) => ({ action: repairAction(target), ref: targetName(target) });

const decisionFor = ({ targets: [first, second] }: Repair): Decision => ({
  kind: 'decision',
  ...asDecided(first),
  ...(second && { with: asDecided(second) }),
});

function Figure({ children }: { children: ReactNode }) {
  return (
    <chakra.td fontFamily="mono" fontWeight="600" fontSize="16px" textAlign="right" whiteSpace="nowrap">
      {children}
    </chakra.td>
  );
}

function Choose({ first, busy, onClick }: { first: boolean; busy: boolean; onClick: () => void }) {
  const Button = first ? MainButton : PlainButton;
  return (
    <Button type="button" disabled={busy} onClick={onClick}>
      Take this route
    </Button>
  );
}
