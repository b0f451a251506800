'use client';

import { useState, useTransition, type ReactNode } from 'react';
import { Flex, Text } from '@chakra-ui/react';
import type { ActionResult } from '@/application/action-result';
import type { Practice } from '@/core/diagnose';
import { MainButton, ProblemNote } from '@/ui';
import { keepPractice } from './actions';

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
  keep?: (typed: T) => Promise<ActionResult>;
  aside?: ReactNode;
  children: ReactNode;
}) {
  const [answer, setAnswer] = useState<ActionResult>();
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
        {answer?.saved && (
          <Text role="status" color="leaf">
            {answer.message}
          </Text>
        )}
      </Flex>
      {answer && !answer.saved && <ProblemNote text={answer.message} />}
    </form>
  );
}
