'use client';

import { useState, useTransition } from 'react';
import { Flex, Link, Text, chakra } from '@chakra-ui/react';
import type { Board } from '@/core/board';
import type { ReferenceReading } from '@/core/reference';
import { FigureLine, FilePick, SidebarPart, ProblemNote, usePlace } from '@/ui';
import { addReferences, dropReferenceImport } from './actions';

/** Readings that came in one file. */
export interface ReferenceImport {
  readonly key: string;
  readonly at: string;
  readonly readings: number;
}

/** Readings on good boards of this kind: how many there are, taken in and given out as CSV. */
export function ReferencePart({
  board,
  references,
  imports,
}: {
  board: Board;
  references: readonly ReferenceReading[];
  imports: readonly ReferenceImport[];
}) {
  const { day } = usePlace();
  const [answer, setAnswer] = useState<{ saved: boolean; message: string }>();
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
      {imports.slice(0, 3).map(({ key, at, readings }) => (
        <Flex key={key} gap="3" fontSize="14px" mt="1" align="baseline">
          <span>
            {readings} from a file of {day(at)}
          </span>
          <chakra.button
            type="button"
            color="copperText"
            textDecoration="underline"
            cursor="pointer"
            disabled={busy}
            onClick={() => start(async () => setAnswer(await dropReferenceImport(board.id, key)))}
          >
            take back
          </chakra.button>
        </Flex>
      ))}
      {answer &&
        (answer.saved ? (
          <Text role="status" color="leaf" fontSize="14px">
            {answer.message}
          </Text>
        ) : (
          <ProblemNote text={answer.message} />
        ))}
    </SidebarPart>
  );
}
