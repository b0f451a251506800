'use client';

import { useState, useTransition } from 'react';
import { Flex, Link, Text } from '@chakra-ui/react';
import type { ActionResult } from '@/application/action-result';
import { AnswerNote, PageLink, PlainButton, ProblemNote, SelectBox, SidebarPart } from '@/ui';
import { sayBoard } from './actions';
import type { BoardChoice } from './new-job';

const MOST_SHOWN = 6;

/** A job whose board nobody has named: chosen here from the library, or begun by eight questions. */
export function BoardPart({ number, boards }: { number: number; boards: readonly BoardChoice[] }) {
  const [chosen, setChosen] = useState('');
  const [answer, setAnswer] = useState<ActionResult>();
  const [busy, start] = useTransition();
  const misfits = answer?.saved === false ? (answer.problems ?? []) : [];
  return (
    <SidebarPart title="Which board is it?">
      <Text fontSize="14px" mb="2">
        Not known yet. What is proposed comes from the usual circuit round a port; pictures, the meter outside, images
        and the report need no board.
      </Text>
      {boards.length > 0 && (
        <Flex gap="2" wrap="wrap" mb="2">
          <SelectBox
            label="Board of this job"
            value={chosen}
            options={[['', 'a board of the library …'], ...boards.map((b) => [b.id, b.name] as const)]}
            onChange={(id) => {
              setChosen(id);
              setAnswer(undefined);
            }}
          />
          <PlainButton
            type="button"
            disabled={busy || chosen === ''}
            onClick={() => start(async () => setAnswer(await sayBoard(number, chosen, misfits.length > 0)))}
          >
            {misfits.length > 0 ? 'It is this one all the same' : 'It is this one'}
          </PlainButton>
        </Flex>
      )}
      <AnswerNote answer={answer} />
      {misfits.slice(0, MOST_SHOWN).map((line) => (
        <ProblemNote key={line} text={line} />
      ))}
      <Link asChild color="copperText" textDecoration="underline" fontSize="14px">
        <PageLink href={`/library/sketch?job=${number}`}>None of these: eight questions begin its file</PageLink>
      </Link>
    </SidebarPart>
  );
}
