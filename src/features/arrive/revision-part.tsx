'use client';

import { useState, useTransition } from 'react';
import { Text } from '@chakra-ui/react';
import type { ActionResult } from '@/application/action-result';
import { AnswerNote, PlainButton, SidebarPart } from '@/ui';
import { moveToRevision } from './actions';
import type { RevisionChoice } from './queries';

const MOST_SHOWN = 6;

/** A newer file of the job's board: what of the record would not fit it, and the way onto it. */
export function RevisionPart({ number, choice }: { number: number; choice: RevisionChoice }) {
  const [answer, setAnswer] = useState<ActionResult>();
  const [busy, start] = useTransition();
  const { on, newest, misfits } = choice;
  return (
    <SidebarPart title="The board’s file has changed">
      <Text fontSize="14px" mb="1">
        This job is on file {on}; the library has file {newest}.{' '}
        {misfits.length === 0
          ? 'All of its record fits the new one.'
          : `${misfits.length} of its entries do not fit the new one:`}
      </Text>
      {misfits.slice(0, MOST_SHOWN).map((line) => (
        <Text key={line} fontSize="13px" color="rust">
          {line}
        </Text>
      ))}
      {misfits.length > MOST_SHOWN && (
        <Text fontSize="13px" color="rust">
          And {misfits.length - MOST_SHOWN} more.
        </Text>
      )}
      <PlainButton
        type="button"
        mt="2"
        disabled={busy}
        onClick={() => start(async () => setAnswer(await moveToRevision(number, newest, misfits.length > 0)))}
      >
        {misfits.length === 0 ? `Move it to file ${newest}` : `Move it to file ${newest} all the same`}
      </PlainButton>
      <AnswerNote answer={answer} />
    </SidebarPart>
  );
}
