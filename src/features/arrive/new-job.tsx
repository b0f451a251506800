'use client';

import { useRef, useState, useTransition } from 'react';
import { useRouter } from 'next/navigation';
import { Box, Flex, Link, Text, chakra } from '@chakra-ui/react';
import { Headline, MainButton, PageLink, ProblemNote } from '@/ui';
import { openNewJob } from './actions';
import { EMPTY_STORY, StoryForm, type StoryDraft } from './story-form';

export interface BoardChoice {
  readonly id: string;
  readonly name: string;
}

/** Stands in the list for a board that nobody has named. */
const NOT_KNOWN = '';

/** A device comes in: which board it has, where that is known, and its story. */
export function NewJob({ boards, first }: { boards: readonly BoardChoice[]; first?: string }) {
  const router = useRouter();
  const [boardId, setBoardId] = useState((boards.find((b) => b.id === first) ?? boards[0])?.id ?? NOT_KNOWN);
  const [draft, setDraft] = useState<StoryDraft>(EMPTY_STORY);
  const [problem, setProblem] = useState<string>();
  const [busy, start] = useTransition();
  const [training, setTraining] = useState(false);
  const key = useRef<string>(crypto.randomUUID());
  const open = (): void =>
    start(async () => {
      // One key until the answer is known: a second press after a lost answer opens no second job.
      const answer = await openNewJob(
        boardId === NOT_KNOWN ? undefined : boardId,
        { ...draft, kind: 'story' },
        key.current,
        training,
      ).catch(() => undefined);
      if (!answer) return setProblem('No answer came. Press again: the same device is not taken in twice.');
      key.current = crypto.randomUUID();
      if (answer.job === undefined) setProblem(answer.message);
      else router.push(`/jobs/${answer.job}/outside`);
    });
  return (
    <>
      <Headline title="What came in, and what does its owner say?" aside="a new job">
        The board file decides what can be computed; the story decides where to look first.
      </Headline>
      <Text fontSize="15px" mb="2">
        <Link asChild color="copperText" textDecoration="underline">
          <PageLink href="/library/sketch">
            {boards.length === 0
              ? 'Begin with its board: eight questions'
              : 'No file of this board? Eight questions begin one'}
          </PageLink>
        </Link>
      </Text>
      <chakra.label display="block" mb="5">
        <Text as="span" display="block" fontSize="13px" fontWeight="700" color="quiet" mb="1.5">
          Board
        </Text>
        <chakra.select
          value={boardId}
          onChange={(e) => setBoardId(e.target.value)}
          bg="ground"
          border="1px solid"
          borderColor="quiet"
          borderRadius="2px"
          px="3"
          py="1.5"
          fontSize="17px"
        >
          {boards.map((b) => (
            <option key={b.id} value={b.id}>
              {b.name}
            </option>
          ))}
          <option value={NOT_KNOWN}>not known yet</option>
        </chakra.select>
      </chakra.label>
      <StoryForm draft={draft} onChange={setDraft} />
      <chakra.label display="flex" gap="2" alignItems="center" cursor="pointer" mt="5">
        <input type="checkbox" checked={training} onChange={(e) => setTraining(e.target.checked)} />A training job:
        simulated instruments may be used, and nothing of it counts anywhere else
      </chakra.label>
      {problem && <ProblemNote text={problem} />}
      <Flex mt="6" gap="4" align="center">
        <MainButton type="button" disabled={busy} onClick={open}>
          Open the job
        </MainButton>
        <Box color="quiet" fontSize="14px">
          Swollen pack? Say so: it comes before everything else.
        </Box>
      </Flex>
    </>
  );
}
