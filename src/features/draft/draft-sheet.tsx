'use client';

import { useState } from 'react';
import { Flex, Text } from '@chakra-ui/react';
import { billOfMaterial, foreignBoard, placementTable, readBoardOf, type ReadBoard } from '@/core/import';
import {
  draftBoard,
  fitPlacements,
  startCompletion,
  withBill,
  withPlacements,
  type BillLine,
  type BoardDraft,
  type PlacementList,
} from '@/core/netlist';
import { problemText } from '@/core/result';
import { FilePick, Headline, ProblemNote, ReadingAsk, useFileReading } from '@/ui';
import { CompletionForm } from './completion-form';
import { InferredPart } from './inferred-part';

interface Made {
  readonly read: ReadBoard;
  readonly draft: BoardDraft;
  readonly name: string;
  /** Counts up: a form that was begun on another draft begins anew. */
  readonly serial: number;
}

/** A board from open files: nets, pads and places are read, its make-up is inferred, a person confirms it and says the rest. */
export function DraftSheet() {
  const [made, setMade] = useState<Made>();
  const [placed, setPlaced] = useState<string>();
  const [problem, setProblem] = useState<string>();

  function make(name: string, read: ReadBoard): void {
    const draft = draftBoard(name, read.foreign, read.inference);
    setMade((before) => ({ read, draft, name, serial: (before?.serial ?? 0) + 1 }));
  }

  const board = useFileReading<ReadBoard>({
    reader: foreignBoard,
    onProblem: setProblem,
    onRead: (read, { name }) => {
      setPlaced(undefined);
      make(idOf(name), read);
    },
  });
  const bill = useFileReading<readonly BillLine[]>({
    reader: billOfMaterial,
    onProblem: setProblem,
    onRead: (lines, { name }) => {
      if (!made) return;
      setPlaced(`values of ${lines.length} parts from ${name}`);
      make(made.name, readBoardOf(withBill(made.read.foreign, lines)));
    },
  });
  const places = useFileReading<PlacementList>({
    reader: placementTable,
    onProblem: setProblem,
    onRead: (list, { name }) => {
      if (!made) return;
      const fit = fitPlacements(made.read.foreign, list);
      if (!fit.ok) return setProblem(`${name}: ${problemText(fit.problems)}`);
      setPlaced(
        `${fit.value.matched} placements from ${name}, half of them within ${fit.value.typicalOffMm.toFixed(2)} mm of their pads`,
      );
      make(made.name, readBoardOf(withPlacements(made.read.foreign, list, fit.value)));
    },
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
        {made && (
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
      {made && <InferredPart inference={made.draft.inference} />}
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
