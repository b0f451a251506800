'use client';

import { useState, useTransition } from 'react';
import { Box, Flex, Text, chakra } from '@chakra-ui/react';
import type { EventBody, JobView, KeepEvent } from '@/core/job';
import { formatChance, formatInHundred, formatMinutes } from '@/core/units';
import { Headline, MainButton, PlainButton, ProblemNote } from '@/ui';

type Decision = Extract<EventBody, { kind: 'decision' }>;

/** Repairs by cure chance for their minutes, beside the best test and beside stopping. */
export function DecideWork({ job, onKeep }: { job: JobView; onKeep: KeepEvent }) {
  const [problem, setProblem] = useState<string>();
  const [busy, start] = useTransition();
  const { decision } = job.state;
  const [test] = job.tests;
  const [best] = job.repairs;
  const keep = (body: Decision): void =>
    start(async () => {
      const answer = await onKeep(job.number, body, crypto.randomUUID());
      setProblem(answer.kept ? undefined : answer.words);
    });
  return (
    <>
      <Headline
        title={
          decision
            ? decision.words
            : best
              ? `${best.words}: cures ${formatInHundred(best.cureChance)}`
              : 'Nothing to decide yet'
        }
        aside={decision ? 'decided' : best && formatMinutes(best.minutes)}
      >
        {decision
          ? 'Another route can still be taken; the earlier decision stays in the record.'
          : test
            ? `Or measure first: ${test.title}, ${formatMinutes(test.minutes)}, ${test.bits.toFixed(2)} bit.`
            : 'No test would change the odds any more.'}
      </Headline>
      <chakra.table w="100%" mt="2" css={{ borderCollapse: 'collapse' }}>
        <chakra.thead>
          <chakra.tr textAlign="left" fontSize="13px" color="quiet">
            {['Route', 'Cures', 'Minutes', 'Cures per hour', ''].map((h) => (
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
          {job.repairs.map((r, i) => {
            const rewrite = r.words.startsWith('Rewrite');
            const chosen = decision?.ref === r.ref && (decision.action === 'rewrite') === rewrite;
            return (
              <chakra.tr key={r.words} borderBottom="1px solid" borderColor="rule">
                <chakra.td py="2.5">
                  <Text as="span" fontWeight="700" color={chosen ? 'copperText' : 'ink'}>
                    {r.words}
                  </Text>{' '}
                  <Text as="span" color="quiet">
                    {job.board.parts.find((p) => p.ref === r.ref)?.what}
                  </Text>
                </chakra.td>
                <Figure>{formatChance(r.cureChance)}</Figure>
                <Figure>{Math.round(r.minutes)}</Figure>
                <Figure>{((r.cureChance / r.minutes) * 60).toFixed(2)}</Figure>
                <chakra.td textAlign="right" pl="4">
                  {chosen ? (
                    <Text as="span" color="copperText" fontWeight="700">
                      chosen
                    </Text>
                  ) : (
                    <Choose
                      first={i === 0 && !decision}
                      busy={busy}
                      onClick={() =>
                        keep({
                          kind: 'decision',
                          action: rewrite ? 'rewrite' : 'replace',
                          ref: r.ref,
                          words: decisionWords(r.ref, rewrite),
                        })
                      }
                    />
                  )}
                </chakra.td>
              </chakra.tr>
            );
          })}
        </chakra.tbody>
      </chakra.table>
      {problem && <ProblemNote text={problem} />}
      <Flex mt="5" gap="4" align="baseline">
        <PlainButton
          type="button"
          disabled={busy}
          onClick={() => keep({ kind: 'decision', action: 'stop', ref: null, words: 'Stop: not worth what it needs' })}
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

const decisionWords = (ref: string, rewrite: boolean): string =>
  rewrite ? `Rewrite the image of ${ref}` : `New ${ref}, same revision`;

function Figure({ children }: { children: string | number }) {
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
