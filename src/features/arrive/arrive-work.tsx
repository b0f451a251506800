'use client';

import { useState, useTransition, type ReactNode } from 'react';
import { Flex, Text } from '@chakra-ui/react';
import type { JobView } from '@/core/job';
import { Headline, MainButton, ProblemNote } from '@/ui';
import { keepStory } from './actions';
import { EMPTY_STORY, StoryForm, type StoryDraft } from './story-form';
import { useStoryHeadline } from './use-story-headline';

/** The story of a job, and which parts it makes likelier before anything is measured. */
export function ArriveWork({ job, keptTitle, past }: { job: JobView; keptTitle: string; past?: ReactNode }) {
  const { story } = job.state;
  const [draft, setDraft] = useState<StoryDraft>(story ?? EMPTY_STORY);
  const title = useStoryHeadline(job, draft.history, keptTitle);
  const [problem, setProblem] = useState<string>();
  const [busy, start] = useTransition();
  const changed =
    JSON.stringify({ ...EMPTY_STORY, ...story, ...draft }) !== JSON.stringify({ ...EMPTY_STORY, ...story });
  const swollen = draft.pack === 'swollen' && !job.state.packOut;
  const keep = (): void =>
    start(async () => {
      const answer = await keepStory(job.number, { ...draft, kind: 'story' }, crypto.randomUUID());
      setProblem(answer.saved ? undefined : answer.message);
    });
  return (
    <>
      <Headline title={swollen ? 'The pack first: out, and into the fire-safe box' : title} aside={`job ${job.number}`}>
        {swollen
          ? 'Type “pack out” once it is done; until then nothing else is proposed.'
          : 'The story shifts the odds before anything is measured; beside it stands by how much.'}
      </Headline>
      {past}
      <StoryForm draft={draft} onChange={setDraft} />
      {problem && <ProblemNote text={problem} />}
      <Flex gap="4" align="center" mt="6">
        <MainButton type="button" disabled={busy || !changed} onClick={keep}>
          {story ? 'Keep the correction' : 'Keep the story'}
        </MainButton>
        <Text color="quiet" fontSize="14px">
          {changed ? 'Not kept yet.' : 'Kept.'} The earlier version stays in the record.
        </Text>
      </Flex>
    </>
  );
}
