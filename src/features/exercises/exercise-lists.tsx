'use client';

import { useState } from 'react';
import { useRouter } from 'next/navigation';
import { Box, Flex, Grid, Link, Text } from '@chakra-ui/react';
import type { ExerciseSpec } from '@/core/drill';
import { PageLink, PlainButton, ProblemNote } from '@/ui';
import { beginExercise } from './actions';
import type { ExerciseList, MemoryRound } from './queries';

/** What is practised beside finding faults: hands, eyes, lines. */
export function ExerciseLists({ lists, memory }: { lists: readonly ExerciseList[]; memory: MemoryRound }) {
  const router = useRouter();
  const [busy, setBusy] = useState(false);
  const [problem, setProblem] = useState<string>();
  async function begin(spec: ExerciseSpec): Promise<void> {
    setBusy(true);
    setProblem(undefined);
    const answer = await beginExercise(spec, crypto.randomUUID());
    if (answer.saved) return router.push(`/drills/${answer.seq}`);
    setBusy(false);
    setProblem(answer.message);
  }
  return (
    <Grid templateColumns={{ base: '1fr', lg: 'repeat(3, minmax(0, 1fr))' }} columnGap="8" rowGap="6" mt="8">
      <MemoryLine memory={memory} />
      {problem && <ProblemNote text={problem} />}
      {lists.map(({ kind, title, about, skill, course }) => (
        <Box key={kind} as="section" aria-label={title}>
          <Flex justify="space-between" align="baseline" borderBottom="1.5px solid" borderColor="ink" pb="1">
            <Text as="h2" fontWeight="700">
              {title}
            </Text>
            {skill.drills > 0 && (
              <Text fontFamily="mono" fontSize="14px" color="quiet">
                {Math.round(skill.rating)} ± {Math.round(2 * skill.deviation)}
              </Text>
            )}
          </Flex>
          <Text fontSize="14px" color="quiet" my="2" minH="4.2em">
            {about}
          </Text>
          {course.map(({ spec, last }) => (
            <Flex
              key={spec.name}
              justify="space-between"
              align="center"
              gap="3"
              py="1.5"
              borderBottom="1px solid"
              borderColor="rule"
            >
              <Text fontSize="15px">{spec.name}</Text>
              <Flex gap="3" align="baseline" flexShrink="0">
                <Text fontFamily="mono">{last?.score === undefined ? '–' : Math.round(100 * last.score)}</Text>
                {last && last.end === undefined ? (
                  <Link asChild color="copperText" fontWeight="700">
                    <PageLink href={`/drills/${last.id}`}>go on</PageLink>
                  </Link>
                ) : (
                  <PlainButton
                    type="button"
                    disabled={busy}
                    aria-label={`${last ? 'Again' : 'Begin'}: ${spec.name}`}
                    onClick={() => void begin(spec)}
                  >
                    {last ? 'Again' : 'Begin'}
                  </PlainButton>
                )}
              </Flex>
            </Flex>
          ))}
        </Box>
      ))}
    </Grid>
  );
}

/** How many short questions wait, across the head of the list. */
const MemoryLine = ({ memory: { ask, known, all } }: { memory: MemoryRound }) => (
  <Flex gridColumn="1 / -1" align="baseline" gap="4" wrap="wrap">
    <Link asChild color="copperText" fontWeight="700">
      <PageLink href="/drills/memory">
        {ask.length === 0 ? 'Memory: nothing is due' : `Memory: ${ask.length} short questions`}
      </PageLink>
    </Link>
    <Text fontSize="14px" color="quiet">
      {known} of {all} facts of the trade and of this shop’s boards were asked before
    </Text>
  </Flex>
);
