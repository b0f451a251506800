'use client';

import { useState } from 'react';
import { Box, Link, Text } from '@chakra-ui/react';
import { draftBoard, parseIpc356, type BoardDraft } from '@/core/netlist';
import { problemText } from '@/core/result';
import { FilePick, ProblemNote } from '@/ui';

/** Netlists of large boards are a few megabytes; far beyond that it is something else. */
const MOST_BYTES = 20_000_000;

/** Makes a board draft from a netlist: what is known is written down, what is missing is listed. */
export function BoardDraftMaker() {
  const [made, setMade] = useState<{ draft: BoardDraft; name: string; href: string }>();
  const [problem, setProblem] = useState<string>();

  async function load(file: File): Promise<void> {
    setMade(undefined);
    if (file.size > MOST_BYTES)
      return setProblem(`${file.name}: expected a netlist of at most 20 MB; got ${(file.size / 1e6).toFixed(0)} MB.`);
    const records = parseIpc356(await file.text());
    if (!records.ok) return setProblem(`${file.name}: ${problemText(records.problems)}`);
    setProblem(undefined);
    const id =
      file.name
        .replace(/\.[^.]*$/, '')
        .toLowerCase()
        .replace(/[^a-z0-9]+/g, '-') || 'draft';
    const draft = draftBoard(id, records.value);
    const href = URL.createObjectURL(new Blob([JSON.stringify(draft.board, null, 1)], { type: 'application/json' }));
    setMade({ draft, name: `${id}.json`, href });
  }

  return (
    <Box mt="4">
      <FilePick
        label="Draft a board from a netlist"
        text="Draft a board from a netlist"
        accept=".ipc,.356,.net,.txt"
        onFile={(file) => void load(file)}
      />
      <Text as="span" color="quiet" fontSize="14px" ml="3">
        IPC-D-356, as layout programs write it
      </Text>
      {problem && <ProblemNote text={problem} />}
      {made && (
        <Box mt="2" borderLeft="3px solid" borderColor="leaf" pl="3" role="status">
          <Text>
            {(made.draft.board.parts as unknown[]).length} parts and {(made.draft.board.points as unknown[]).length}{' '}
            test points found.{' '}
            <Link href={made.href} download={made.name} color="copperText" textDecoration="underline">
              Save {made.name}
            </Link>
            , fill it in, and add it as a board file. Still missing:
          </Text>
          {made.draft.missing.map((m) => (
            <Text key={m} fontSize="14px" color="quiet">
              {m}
            </Text>
          ))}
        </Box>
      )}
    </Box>
  );
}
