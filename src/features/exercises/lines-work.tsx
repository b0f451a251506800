'use client';

import { useEffect, useMemo, useState } from 'react';
import { Box, Grid, Text, chakra } from '@chakra-ui/react';
import { OUTCOME_WORDS, linesQuestion, type LinesDrill, type LinesQuestion } from '@/core/drill';
import { AnswerNote, Headline, Key } from '@/ui';
import { finishExercise } from './actions';
import type { ExerciseView } from './queries';

type Answer = LinesQuestion['choices'][number];

/** A conversation, message by message, and four answers: one says where it stopped. */
export function LinesWork({ exercise: { id, board }, drill }: { exercise: ExerciseView; drill: LinesDrill }) {
  const [answers, setAnswers] = useState<readonly Answer[]>([]);
  const [answer, setAnswer] = useState<{ saved: boolean; message: string }>();
  const at = Math.min(answers.length, drill.questions - 1);
  const question = useMemo(() => linesQuestion(board, drill, at), [board, drill, at]);
  const isOver = answers.length === drill.questions;
  const choose = (choice: Answer): void => {
    if (isOver) return;
    const all = [...answers, choice];
    setAnswers(all);
    if (all.length === drill.questions) void finishExercise(id, { answers: all }, crypto.randomUUID()).then(setAnswer);
  };
  useEffect(() => {
    const onKey = (event: KeyboardEvent): void => {
      const choice = question.choices[Number(event.key) - 1];
      if (!choice || event.ctrlKey || event.metaKey || event.altKey) return;
      event.preventDefault();
      choose(choice);
    };
    addEventListener('keydown', onKey);
    return () => removeEventListener('keydown', onKey);
  });
  return (
    <>
      <Headline title="What happened here?" aside={`conversation ${at + 1} of ${drill.questions}`}>
        A capture at the port of {board.device}. Acknowledgements are shown: by them one tells who lives.
      </Headline>
      <Grid templateColumns={{ base: '1fr', lg: 'minmax(0, 1.3fr) minmax(0, 1fr)' }} gap="8">
        <Messages lines={question.lines} />
        <Box>
          {question.choices.map((choice, i) => (
            <chakra.button
              key={choice}
              type="button"
              display="flex"
              gap="3"
              alignItems="baseline"
              w="100%"
              textAlign="left"
              py="2.5"
              borderBottom="1px solid"
              borderColor="rule"
              cursor="pointer"
              _hover={{ bg: 'ground' }}
              disabled={isOver}
              onClick={() => choose(choice)}
            >
              <Key>{i + 1}</Key>
              <span>{OUTCOME_WORDS[choice]}</span>
            </chakra.button>
          ))}
        </Box>
      </Grid>
      {answer && !answer.saved && <AnswerNote answer={answer} />}
    </>
  );
}

const Messages = ({ lines }: { lines: LinesQuestion['lines'] }) =>
  lines.length === 0 ? (
    <Text color="quiet">The capture is empty: both lines stay where they were.</Text>
  ) : (
    <Box role="list" aria-label="Messages in their order" maxH="62vh" overflowY="auto" tabIndex={0}>
      {lines.map((line, i) => (
        <Grid
          key={i}
          role="listitem"
          templateColumns="84px 70px minmax(0, 1fr)"
          columnGap="3"
          py="1"
          borderBottom="1px solid"
          borderColor="rule"
          fontSize="14px"
        >
          <Text fontFamily="mono" color="quiet">
            {(1000 * line.atS).toFixed(1)} ms
          </Text>
          <Text fontWeight="700">{line.who}</Text>
          <Text>{line.words}</Text>
        </Grid>
      ))}
    </Box>
  );
