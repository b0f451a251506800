'use client';

import { useState } from 'react';
import { Box, Flex, Heading, Text } from '@chakra-ui/react';
import { AnswerNote, MainButton, Named, PlainButton, ProblemNote, TextInput } from '@/ui';
import { giveWord, signIn, signOut } from './actions';

/** Where this browser's bench is remembered. */
const BENCH = 'unisolda-bench';

/** Name, password and bench: then on to where one wanted to be. */
export function SignInForm({ to }: { to: string }) {
  const [problem, setProblem] = useState<string>();
  const [busy, setBusy] = useState(false);
  return (
    <Box
      as="form"
      maxW="340px"
      onSubmit={(event) => {
        event.preventDefault();
        const given = new FormData(event.currentTarget as unknown as HTMLFormElement);
        const [username, password, bench] = ['username', 'password', 'bench'].map((n) => String(given.get(n) ?? ''));
        localStorage.setItem(BENCH, bench);
        setBusy(true);
        void signIn(username, password, bench, to).then((refusal) => {
          setBusy(false);
          setProblem(refusal);
        });
      }}
    >
      <Heading as="h1" fontSize="34px" mb="5">
        Who is at this bench?
      </Heading>
      <Flex direction="column" gap="3">
        <Named name="Name">
          <TextInput name="username" autoComplete="username" autoFocus required />
        </Named>
        <Named name="Password">
          <TextInput name="password" type="password" autoComplete="current-password" required />
        </Named>
        <Named name="Bench">
          <TextInput
            name="bench"
            maxLength={40}
            required
            defaultValue={typeof window === 'undefined' ? '' : (localStorage.getItem(BENCH) ?? 'Bench 1')}
            suppressHydrationWarning
          />
        </Named>
      </Flex>
      {problem && <ProblemNote text={problem} />}
      <Flex mt="4">
        <MainButton type="submit" disabled={busy}>
          Sign in
        </MainButton>
      </Flex>
    </Box>
  );
}

/** Who is signed in, the way out, and a lead's word for an apprentice's entry. */
export function SignedInPart({ name, role, bench }: { name: string; role: string; bench: string }) {
  const [answer, setAnswer] = useState<{ saved: boolean; message: string }>();
  return (
    <Box maxW="480px">
      <Heading as="h1" fontSize="34px">
        {name}
      </Heading>
      <Text color="quiet" mb="4">
        {role}, {bench}. What is entered here carries this name.
      </Text>
      <Flex gap="4">
        <MainButton type="button" onClick={() => void signOut(false)}>
          Sign out
        </MainButton>
        <PlainButton type="button" onClick={() => void signOut(true)}>
          Sign out at every bench
        </PlainButton>
      </Flex>
      {role === 'apprentice' && (
        <Box
          as="form"
          mt="8"
          onSubmit={(event) => {
            event.preventDefault();
            const form = event.currentTarget as unknown as HTMLFormElement;
            const given = new FormData(form);
            void giveWord(String(given.get('lead') ?? ''), String(given.get('leadPassword') ?? '')).then((told) => {
              setAnswer(told);
              if (told.saved) form.reset();
            });
          }}
        >
          <Heading as="h2" fontSize="20px">
            A lead’s word
          </Heading>
          <Text color="quiet" fontSize="14px" mb="2">
            Closing as repaired, opening a donor and writing an image need it: for one entry, within five minutes.
          </Text>
          <Flex gap="3" align="flex-end">
            <Named name="Lead’s name">
              <TextInput name="lead" autoComplete="off" required />
            </Named>
            <Named name="Lead’s password">
              <TextInput name="leadPassword" type="password" autoComplete="off" required />
            </Named>
            <PlainButton type="submit">Give it</PlainButton>
          </Flex>
          <AnswerNote answer={answer} />
        </Box>
      )}
    </Box>
  );
}
