'use client';

import { useState, useTransition } from 'react';
import { Box, Text } from '@chakra-ui/react';
import type { ActionResult } from '@/application/action-result';
import { FilePick, ProblemNote } from '@/ui';
import { addPartTypes } from './actions';

/** A file far beyond any library of parts is refused before it is read. */
const MOST_BYTES = 5_000_000;

/** Takes part types in; a file with a fault is explained and changes nothing. */
export function PartUpload() {
  const [answer, setAnswer] = useState<ActionResult>();
  const [busy, start] = useTransition();
  function load(file: File): void {
    if (file.size > MOST_BYTES) {
      setAnswer({
        saved: false,
        message: `${file.name}: expected at most 5 MB; got ${(file.size / 1e6).toFixed(0)} MB. Nothing was read.`,
      });
      return;
    }
    start(async () => setAnswer(await addPartTypes(await file.text())));
  }
  return (
    <Box mt="4">
      <FilePick
        label="Add part types"
        text={busy ? 'Checking …' : 'Add part types'}
        accept=".json,application/json"
        onFile={load}
      />
      <Text as="span" color="quiet" fontSize="14px" ml="3">
        unisolda-part/1, one or a list, described in docs/formats
      </Text>
      {answer &&
        (answer.saved ? (
          <Text role="status" color="leaf" mt="2">
            {answer.message}
          </Text>
        ) : (
          <ProblemNote text={answer.message} />
        ))}
    </Box>
  );
}
