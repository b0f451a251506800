'use client';

import { useState, useTransition } from 'react';
import { Flex, Link, Text } from '@chakra-ui/react';
import type { Board } from '@/core/board';
import type { ReferenceReading } from '@/core/reference';
import { FigureLine, FilePick, SidebarPart, ProblemNote } from '@/ui';
import { addReferences } from './actions';

/** Readings on good boards of this kind: how many there are, taken in and given out as CSV. */
export function ReferencePart({ board, references }: { board: Board; references: readonly ReferenceReading[] }) {
  const [answer, setAnswer] = useState<{ kept: boolean; words: string }>();
  const [busy, start] = useTransition();
  const points = new Set(references.map((r) => r.point)).size;
  const sources = new Set(references.map((r) => r.source)).size;
  return (
    <SidebarPart title="Known-good readings">
      <FigureLine name="Points" value={points} />
      <FigureLine name="Good boards" value={sources} />
      <Flex gap="4" fontSize="14px" mt="1">
        <FilePick
          label="Add reference readings"
          text={busy ? 'Checking …' : 'add from CSV'}
          accept=".csv,text/csv"
          onFile={(file) => start(async () => setAnswer(await addReferences(board.id, await file.text())))}
        />
        {references.length > 0 && (
          <Link href={`/library/${board.id}/references`} color="copperText" textDecoration="underline" download>
            give out as CSV
          </Link>
        )}
      </Flex>
      {answer &&
        (answer.kept ? (
          <Text role="status" color="leaf" fontSize="14px">
            {answer.words}
          </Text>
        ) : (
          <ProblemNote text={answer.words} />
        ))}
    </SidebarPart>
  );
}
