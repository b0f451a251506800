'use client';

import { useState, useTransition } from 'react';
import { Box, Text } from '@chakra-ui/react';
import type { ActionResult } from '@/application/action-result';
import { FilePick, ProblemNote } from '@/ui';
import { addBoard } from './actions';

/** A board of a hundred parts is about 40 kB; a file far beyond any board is refused before it is read. */
const MOST_BYTES = 2_000_000;
const MOST_SHOWN = 8;

/** Takes a board file in; a malformed one is explained line by line and changes nothing. */
export function BoardUpload() {
  const [answer, setAnswer] = useState<ActionResult>();
  const [busy, start] = useTransition();
  const problems = answer?.problems ?? [];
  function load(file: File): void {
    if (file.size > MOST_BYTES) {
      setAnswer({
        saved: false,
        message: `${file.name}: expected a board file of at most 2 MB; got ${(file.size / 1e6).toFixed(0)} MB. Nothing was read.`,
      });
      return;
    }
    start(async () => setAnswer(await addBoard(await file.text())));
  }
  return (
    <Box mt="4">
      <FilePick
        label="Add a board file"
        text={busy ? 'Checking …' : 'Add a board file'}
        accept=".json,application/json"
        onFile={load}
      />
      <Text as="span" color="quiet" fontSize="14px" ml="3">
        unisolda-board/2, described in docs/formats
      </Text>
      {answer &&
        (answer.saved ? (
          <Text color="leaf" mt="2" role="status">
            {answer.message}
          </Text>
        ) : (
          <>
            <ProblemNote text={answer.message} />
            {problems.slice(0, MOST_SHOWN).map((p) => (
              <Text key={p} fontSize="14px" ml="4">
                {p}
              </Text>
            ))}
            {problems.length > MOST_SHOWN && (
              <Text fontSize="14px" ml="4" color="quiet">
                And {problems.length - MOST_SHOWN} more.
              </Text>
            )}
          </>
        ))}
    </Box>
  );
}
