'use client';

import { useState, useTransition, type ReactNode } from 'react';
import { Flex, Text } from '@chakra-ui/react';
import type { Practice } from '@/core/diagnose';
import { MainButton, ProblemNote } from '@/ui';
import { keepPractice, type PracticeAnswer } from './actions';

/** A sheet of figures with the button that keeps them. */
export function KeepForm<T = Practice>({
  action,
  read,
  keep = keepPractice,
  aside,
  children,
}: {
  action: string;
  read: () => T;
  keep?: (typed: T) => Promise<PracticeAnswer>;
  aside?: ReactNode;
  children: ReactNode;
}) {
  const [answer, setAnswer] = useState<PracticeAnswer>();
  const [busy, start] = useTransition();
  return (
    <form
      onSubmit={(e) => {
        e.preventDefault();
        start(async () => setAnswer(await keep(read())));
      }}
    >
      {children}
      <Flex mt="4" gap="4" align="baseline">
        <MainButton type="submit" disabled={busy}>
          {action}
        </MainButton>
        {aside}
        {answer?.kept && (
          <Text role="status" color="leaf">
            {answer.words}
          </Text>
        )}
      </Flex>
      {answer && !answer.kept && <ProblemNote text={answer.words} />}
    </form>
  );
}
