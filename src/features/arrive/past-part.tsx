'use client';

import { useState, useTransition } from 'react';
import { Box, Flex, Text, chakra } from '@chakra-ui/react';
import type { JobView } from '@/core/job';
import { formatChance } from '@/core/units';
import { AnswerNote, PlainButton, useEntryOffer, usePlace } from '@/ui';

type Past = JobView['priorClosures'][number];

export interface PastPartProps {
  readonly job: JobView;
  /** Whether what each time taught still counts, the latest first. */
  readonly lessonsKept: readonly boolean[];
  readonly onDropLesson: (
    job: number,
    timesBack: number,
  ) => Promise<{ readonly saved: boolean; readonly message: string }>;
}

/** What a job that came back knows: what was done and proven, how long it held, and what reads otherwise now. */
export function PastPart({ job, lessonsKept, onDropLesson }: PastPartProps) {
  const { day } = usePlace();
  return job.priorClosures.map((past, i) => {
    const timesBack = job.priorClosures.length - 1 - i;
    return (
      <Box key={past.reopenedAt} as="section" aria-label="Before it came back" mb="6" maxW="760px">
        <Text fontSize="20px" fontWeight="700">
          Came back after {past.daysGood} {past.daysGood === 1 ? 'day' : 'days'}
          {past.mended.length > 0 && `: ${formatChance(past.againChance)} that it is the same work again`}
        </Text>
        <Text>
          Closed {day(past.closedAt)} as {past.outcome}. {past.mended.join(', ') || 'Nothing was changed'}.{' '}
          {past.cause && `The owner was told: ${past.cause.replace(/\.$/, '')}. `}
          {past.reason && `It was closed with gates not met: ${past.reason.replace(/\.$/, '')}.`}
        </Text>
        <Text color="quiet" fontSize="14px" mt="1">
          Proven then: {past.proven.join(', ').toLowerCase() || 'nothing'}.{' '}
          {past.unproven.length > 0 && `Left open then: ${past.unproven.join('; ')}. `}
          Nothing of it counts as proof now; what was mended is likelier to start with.
        </Text>
        <Changes past={past} />
        {lessonsKept[i] && <DropLesson onDrop={() => onDropLesson(job.number, timesBack)} />}
      </Box>
    );
  });
}

/** Readings that are shown before the rest is asked for. */
const FIRST_SHOWN = 6;

/** The readings of the last proof beside those of now; a click begins to read one again. */
function Changes({ past }: { past: Past }) {
  const [all, setAll] = useState(false);
  const { offerText } = useEntryOffer();
  const shown = all ? past.changes : past.changes.slice(0, FIRST_SHOWN);
  if (past.changes.length === 0) return null;
  return (
    <>
      <chakra.table w="100%" mt="2" fontSize="14px" css={{ borderCollapse: 'collapse' }} aria-label="Then and now">
        <chakra.thead>
          <chakra.tr color="quiet" fontSize="13px" textAlign="left">
            {['', 'At the last proof', 'Now', ''].map((head, i) => (
              <chakra.th key={i} fontWeight="700">
                {head}
              </chakra.th>
            ))}
          </chakra.tr>
        </chakra.thead>
        <chakra.tbody>
          {shown.map((c) => (
            <chakra.tr key={c.name} borderTop="1px solid" borderColor="rule">
              <chakra.td py="1">
                <chakra.button type="button" cursor="pointer" textAlign="left" onClick={() => offerText(c.stem)}>
                  {c.name}
                </chakra.button>
              </chakra.td>
              <chakra.td fontFamily="mono" color="quiet">
                {c.then}
              </chakra.td>
              <chakra.td fontFamily="mono" fontWeight="700" color={c.hasTurned ? 'rust' : 'leaf'}>
                {c.now}
              </chakra.td>
              <chakra.td textAlign="right" color={c.hasTurned ? 'rust' : 'quiet'}>
                {c.hasTurned ? 'has turned' : c.now === undefined ? 'to be read again' : 'as it was'}
              </chakra.td>
            </chakra.tr>
          ))}
        </chakra.tbody>
      </chakra.table>
      {past.changes.length > FIRST_SHOWN && (
        <PlainButton type="button" mt="2" onClick={() => setAll(!all)}>
          {all ? 'Only the first' : `All ${past.changes.length}`}
        </PlainButton>
      )}
    </>
  );
}

function DropLesson({ onDrop }: { onDrop: () => Promise<{ readonly saved: boolean; readonly message: string }> }) {
  const [answer, setAnswer] = useState<{ readonly saved: boolean; readonly message: string }>();
  const [busy, start] = useTransition();
  return (
    <Flex gap="3" mt="3" align="baseline">
      <Text>What it taught then still counts.</Text>
      <PlainButton type="button" disabled={busy} onClick={() => start(async () => setAnswer(await onDrop()))}>
        Take it back
      </PlainButton>
      <AnswerNote answer={answer} />
    </Flex>
  );
}
