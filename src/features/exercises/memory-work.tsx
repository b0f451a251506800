'use client';

import { useEffect, useState } from 'react';
import { Box, Flex, Text } from '@chakra-ui/react';
import type { Recall } from '@/core/drill';
import { AnswerNote, Headline, Key, MainButton, PlainButton } from '@/ui';
import { keepRecall } from './actions';
import type { MemoryRound } from './queries';

const RECALLS: readonly {
  readonly recall: Recall;
  readonly words: string;
  readonly key: string;
  readonly cap: string;
}[] = [
  { recall: 'forgotten', words: 'Not known', key: 'ArrowLeft', cap: '←' },
  { recall: 'withEffort', words: 'With effort', key: 'ArrowDown', cap: '↓' },
  { recall: 'known', words: 'Known', key: 'ArrowRight', cap: '→' },
];

/** Short questions, each with its answer behind a key; how well it was known says when it is asked again. */
export function MemoryWork({ round }: { round: MemoryRound }) {
  // The round as it began: what is kept meanwhile does not change what is asked.
  const [ask] = useState(round.ask);
  const [at, setAt] = useState(0);
  const [isOpen, setIsOpen] = useState(false);
  const [answer, setAnswer] = useState<{ saved: boolean; message: string }>();
  const fact = ask[at];
  const judge = (recall: Recall): void => {
    if (!fact || !isOpen) return;
    setIsOpen(false);
    setAt(at + 1);
    void keepRecall(fact.id, recall, crypto.randomUUID()).then(setAnswer);
  };
  useMemoryKeys(() => setIsOpen(true), isOpen ? judge : undefined);
  if (!fact)
    return (
      <>
        <Headline title={ask.length === 0 ? 'Nothing is due' : 'That was all for now'} aside={`${round.all} facts`}>
          {ask.length === 0
            ? 'What you know is asked again when it is about to be forgotten.'
            : `${ask.length} asked. Each comes again when it is about to be forgotten.`}
        </Headline>
        {answer && !answer.saved && <AnswerNote answer={answer} />}
      </>
    );
  return (
    <>
      <Headline title={fact.question} aside={`${at + 1} of ${ask.length}`}>
        {isOpen ? 'How well did you know it?' : 'Say it to yourself, then look.'}
      </Headline>
      {isOpen ? (
        <>
          <Box bg="ground" borderLeft="3px solid" borderColor="copper" px="5" py="4" my="4" maxW="720px">
            <Text fontSize="22px" fontWeight="700">
              {fact.answer}
            </Text>
            <Text fontSize="13px" color="quiet" mt="1">
              {fact.source}
            </Text>
          </Box>
          <Flex gap="3" wrap="wrap">
            {RECALLS.map(({ recall, words, cap }) => (
              <PlainButton key={recall} type="button" onClick={() => judge(recall)}>
                <Key>{cap}</Key> {words}
              </PlainButton>
            ))}
          </Flex>
        </>
      ) : (
        <MainButton type="button" onClick={() => setIsOpen(true)}>
          Show the answer <Key onCopper>Enter</Key>
        </MainButton>
      )}
      {answer && !answer.saved && <AnswerNote answer={answer} />}
    </>
  );
}

function useMemoryKeys(open: () => void, judge: ((recall: Recall) => void) | undefined): void {
  useEffect(() => {
    const onKey = (event: KeyboardEvent): void => {
      if (event.ctrlKey || event.metaKey || event.altKey) return;
      const recall = RECALLS.find((r) => r.key === event.key)?.recall;
      if (judge && recall) judge(recall);
      else if (!judge && event.key === 'Enter' && !(event.target instanceof HTMLButtonElement)) open();
      else return;
      event.preventDefault();
    };
    addEventListener('keydown', onKey);
    return () => removeEventListener('keydown', onKey);
  });
}
