'use client';

import { useState, useTransition } from 'react';
import { useRouter } from 'next/navigation';
import { Flex, Text } from '@chakra-ui/react';
import type { ActionResult } from '@/application/action-result';
import { AnswerNote, Named, PlainButton, SidebarPart, TextInput, usePlace } from '@/ui';
import { copyBoard, setBoardRetired } from './actions';
import type { BoardFile } from './queries';

const MOST_SHOWN = 4;

/** The revisions of a board's file, and what can be done with the board: copied as the start of another, or retired. */
export function BoardFilePart({ id, file }: { id: string; file: BoardFile }) {
  const { day } = usePlace();
  const router = useRouter();
  const [newId, setNewId] = useState('');
  const [answer, setAnswer] = useState<ActionResult>();
  const [busy, start] = useTransition();
  const copy = (): void =>
    start(async () => {
      const result = await copyBoard(id, newId.trim());
      setAnswer(result);
      if (result.saved) router.push(`/library/${newId.trim()}`);
    });
  const retired = file.retiredAt !== undefined;
  return (
    <SidebarPart title="Its file">
      {file.revisions.slice(0, MOST_SHOWN).map(({ revision, addedAt }, i) => (
        <Text key={revision} fontSize="14px" color={i === 0 ? 'ink' : 'quiet'}>
          File {revision}, added {day(addedAt)}
          {i === 0 && ': new jobs are opened on it'}
        </Text>
      ))}
      <Text fontSize="13px" color="quiet" mb="2">
        A file of the same id makes the next revision; jobs stay on theirs until they are moved.
      </Text>
      {retired && (
        <Text fontSize="14px" color="amberText" mb="2">
          Retired on {day(file.retiredAt!)}: no new job is opened on it.
        </Text>
      )}
      <Flex gap="2" align="flex-end" mb="2">
        <Named name="Copy it as">
          <TextInput value={newId} placeholder={`${id}-2`} w="150px" onChange={(e) => setNewId(e.target.value)} />
        </Named>
        <PlainButton type="button" disabled={busy || newId.trim() === ''} onClick={copy}>
          Copy
        </PlainButton>
      </Flex>
      <PlainButton
        type="button"
        disabled={busy}
        onClick={() => start(async () => setAnswer(await setBoardRetired(id, !retired)))}
      >
        {retired ? 'Take it into use again' : 'Retire it'}
      </PlainButton>
      <AnswerNote answer={answer} />
    </SidebarPart>
  );
}
