'use client';

import { useState } from 'react';
import { Flex, Text } from '@chakra-ui/react';
import {
  billOfMaterial,
  foreignBoard,
  placementTable,
  type DraftFile,
  type DraftMade,
  type Outcome,
} from '@/core/import';
import { startCompletion, type BillLine, type PlacementList } from '@/core/netlist';
import { problemText } from '@/core/result';
import { draftTask } from '@/workers/draft/task';
import { useWorkerTask } from '@/workers/use-worker-task';
import { FilePick, Headline, ProblemNote, ReadingAsk, useFileReading } from '@/ui';
import { CompletionForm } from './completion-form';
import { InferredPart } from './inferred-part';

interface Made extends DraftMade {
  readonly given: DraftFile;
  /** Counts up: a form that was begun on another draft begins anew. */
  readonly serial: number;
}

/** A board from open files: nets, pads and places are read, its make-up is inferred, a person confirms it and says the rest. */
export function DraftSheet() {
  const [made, setMade] = useState<Made>();
  const [placed, setPlaced] = useState<string>();
  const [problem, setProblem] = useState<string>();
  const { status, start } = useWorkerTask(draftTask);
  const isReading = status.kind === 'running';

  async function draftOf(given: DraftFile): Promise<Outcome<DraftMade>> {
    const answer = await start(given);
    if (answer.kind === 'done') return answer.value;
    const message = answer.kind === 'problem' ? `${given.file.name}: ${answer.message}` : 'Another file was read.';
    return { kind: 'refused', problems: [{ message }] };
  }

  const show = (given: DraftFile, draft: DraftMade): void =>
    setMade((before) => ({ ...draft, given, serial: (before?.serial ?? 0) + 1 }));

  /** Takes something in that goes with the board, and says what it was. */
  async function takeIn(more: Partial<DraftFile>, name: string, words: (draft: DraftMade) => string): Promise<void> {
    if (!made) return;
    const given = { ...made.given, ...more };
    const outcome = await draftOf(given);
    if (outcome.kind === 'refused') return setProblem(`${name}: ${problemText(outcome.problems)}`);
    if (!outcome.value) return;
    setPlaced(words(outcome.value));
    show(given, outcome.value);
  }

  const board = useFileReading<DraftMade>({
    reader: {
      ...foreignBoard,
      read: (file, answers) => draftOf({ id: idOf(file.name), file, answers }),
    },
    onProblem: setProblem,
    onRead: (draft, file, answers) => {
      setPlaced(undefined);
      show({ id: idOf(file.name), file, answers }, draft);
    },
  });
  const bill = useFileReading<readonly BillLine[]>({
    reader: billOfMaterial,
    onProblem: setProblem,
    onRead: (lines, { name }) =>
      void takeIn({ bill: lines }, name, () => `values of ${lines.length} parts from ${name}`),
  });
  const places = useFileReading<PlacementList>({
    reader: placementTable,
    onProblem: setProblem,
    onRead: (list, { name }) =>
      void takeIn(
        { places: list },
        name,
        ({ fit }) =>
          `${fit!.matched} placements from ${name}, half of them within ${fit!.typicalOffMm.toFixed(2)} mm of their pads`,
      ),
  });

  return (
    <>
      <Headline title="A board from open files" aside="library">
        A netlist or the layout itself gives nets, pads and places; a placement list adds values. What the board is made
        of is inferred: confirm it, and say the rest. Nothing is kept until you add it.
      </Headline>
      <Flex gap="5" align="baseline" fontSize="15px" mb="3" wrap="wrap">
        <FilePick
          label="Read a board"
          text={made ? 'Read another board' : 'Read a board: IPC-D-356, IPC-2581 or .kicad_pcb'}
          accept=".ipc,.356,.d356,.net,.txt,.kicad_pcb,.xml,.cvg"
          onFile={(file) => void board.take(file)}
        />
        {made && (
          <FilePick
            label="Read a bill of material"
            text="Read a bill of material"
            accept=".csv,.tsv,.txt,text/csv"
            onFile={(file) => void bill.take(file)}
          />
        )}
        {made && (
          <FilePick
            label="Read a placement list"
            text="Read a placement list, CSV"
            accept=".csv,.pos,.txt,text/csv"
            onFile={(file) => void places.take(file)}
          />
        )}
        {isReading && (
          <Text as="span" color="quiet" role="status">
            Reading …
          </Text>
        )}
        {made && !isReading && (
          <Text as="span" color="quiet" role="status">
            {(made.draft.board.parts as unknown[]).length} parts, {(made.draft.board.points as unknown[]).length} test
            points{placed && `, ${placed}`}
          </Text>
        )}
      </Flex>
      <ReadingAsk reading={board} title={foreignBoard.title} />
      <ReadingAsk reading={places} title={placementTable.title} />
      <ReadingAsk reading={bill} title={billOfMaterial.title} />
      {problem && <ProblemNote text={problem} />}
      {made && <InferredPart draft={made.draft} />}
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
