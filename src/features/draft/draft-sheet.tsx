'use client';

import { useState } from 'react';
import { Flex, Text } from '@chakra-ui/react';
import {
  draftBoard,
  parseIpc356,
  parsePlacementCsv,
  startCompletion,
  type BoardDraft,
  type Placement,
  type TestRecord,
} from '@/core/netlist';
import { problemText, type Result } from '@/core/result';
import { FilePick, Headline, ProblemNote } from '@/ui';
import { CompletionForm } from './completion-form';

/** Netlists of large boards are a few megabytes; far beyond that it is something else. */
const MOST_BYTES = 20_000_000;

/** A board from open files: the netlist gives nets, pads and points, a person says the rest, and the sheet says what is missing. */
export function DraftSheet() {
  const [records, setRecords] = useState<readonly TestRecord[]>();
  const [made, setMade] = useState<{ draft: BoardDraft; name: string; serial: number }>();
  const [placed, setPlaced] = useState<string>();
  const [problem, setProblem] = useState<string>();

  async function read<T>(file: File, parse: (text: string) => Result<T>): Promise<T | undefined> {
    if (file.size > MOST_BYTES) {
      setProblem(`${file.name}: expected a list of at most 20 MB; got ${(file.size / 1e6).toFixed(0)} MB.`);
      return undefined;
    }
    const parsed = parse(await file.text());
    setProblem(parsed.ok ? undefined : `${file.name}: ${problemText(parsed.problems)}`);
    return parsed.ok ? parsed.value : undefined;
  }

  function make(name: string, from: readonly TestRecord[], placements: readonly Placement[]): void {
    setMade((before) => ({ draft: draftBoard(name, from, placements), name, serial: (before?.serial ?? 0) + 1 }));
  }

  async function takeNetlist(file: File): Promise<void> {
    const list = await read(file, parseIpc356);
    if (!list) return;
    setRecords(list);
    setPlaced(undefined);
    make(idOf(file.name), list, []);
  }

  async function takePlacements(file: File): Promise<void> {
    const list = await read(file, parsePlacementCsv);
    if (!list || !records || !made) return;
    setPlaced(`${list.length} placements from ${file.name}`);
    make(made.name, records, list);
  }

  return (
    <>
      <Headline title="A board from open files" aside="library">
        The netlist gives nets, pads and test points; a placement list gives what each part is. You say what it does.
        Nothing is kept until you add it.
      </Headline>
      <Flex gap="5" align="baseline" fontSize="15px" mb="3" wrap="wrap">
        <FilePick
          label="Read a netlist"
          text={made ? 'Read another netlist' : 'Read a netlist, IPC-D-356'}
          accept=".ipc,.356,.net,.txt"
          onFile={(file) => void takeNetlist(file)}
        />
        {made && (
          <FilePick
            label="Read a placement list"
            text="Read a placement list, CSV"
            accept=".csv,text/csv"
            onFile={(file) => void takePlacements(file)}
          />
        )}
        {made && (
          <Text as="span" color="quiet" role="status">
            {(made.draft.board.parts as unknown[]).length} parts, {(made.draft.board.points as unknown[]).length} test
            points{placed && `, ${placed}`}
          </Text>
        )}
      </Flex>
      {problem && <ProblemNote text={problem} />}
      {made && <CompletionForm key={made.serial} draft={made.draft} start={startCompletion(made.draft)} />}
    </>
  );
}

/** A board's id from the name of its file. */
const idOf = (fileName: string): string =>
  fileName
    .replace(/\.[^.]*$/, '')
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-|-$/g, '') || 'draft';
