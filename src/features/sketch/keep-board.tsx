'use client';

import { useRef, useState, useTransition } from 'react';
import { useRouter } from 'next/navigation';
import { Box, Flex, Link, Text } from '@chakra-ui/react';
import { MainButton, PageLink, PlainButton, ProblemNote } from '@/ui';
import { keepBoard } from './actions';
import type { EditingAction, Editing } from './editing';

interface KeptAnswer {
  readonly saved: boolean;
  readonly message: string;
}

/** Keeps the board as it is drawn as the next file of it, under one key until the answer is known. */
export function useKeeping({ board, revision }: Editing, dispatch: (step: EditingAction) => void) {
  const router = useRouter();
  const [answer, setAnswer] = useState<KeptAnswer>();
  const [busy, startKeeping] = useTransition();
  const key = useRef<string>(crypto.randomUUID());

  function keep(): void {
    startKeeping(async () => {
      const result = await keepBoard(board.id, revision, JSON.stringify(board), key.current).catch(() => undefined);
      if (!result) return setAnswer({ saved: false, message: 'No answer came. Press again: it is not kept twice.' });
      key.current = crypto.randomUUID();
      setAnswer(result);
      if (!result.saved) return;
      const now = /file (\d+)/.exec(result.message)?.[1];
      dispatch({ kind: 'kept', board, revision: now === undefined ? revision : Number(now) });
      router.refresh();
    });
  }
  return { keep, busy, answer };
}

interface KeepBarProps {
  readonly work: Editing;
  readonly busy: boolean;
  readonly answer?: KeptAnswer;
  readonly onKeep: () => void;
  readonly onUndo: () => void;
}

/** Under the drawing: keeping it, taking a step back, and the job that can be opened on it. */
export function KeepBar({ work: { board, kept, past, revision }, busy, answer, onKeep, onUndo }: KeepBarProps) {
  const changed = board !== kept;
  const refused = answer && !answer.saved;
  return (
    <>
      <Flex mt="3" gap="4" align="center" wrap="wrap">
        <MainButton type="button" disabled={busy || !changed} onClick={onKeep}>
          Keep this board
        </MainButton>
        <PlainButton type="button" disabled={past.length === 0} onClick={onUndo}>
          Undo
        </PlainButton>
        <Box flex="1" minW="200px" fontSize="14px" color={refused ? 'rust' : 'quiet'} role="status">
          {changed ? 'Not kept yet.' : (answer?.message ?? `File ${revision}.`)}
        </Box>
        <Text fontSize="15px">
          <Link asChild color="copperText" textDecoration="underline">
            <PageLink href={`/jobs/new?board=${board.id}`}>Open a job on it</PageLink>
          </Link>
        </Text>
      </Flex>
      {refused && <ProblemNote text={answer.message} />}
    </>
  );
}
