import {
  draftBoard,
  fitPlacements,
  withBill,
  withPlacements,
  type BillLine,
  type BoardDraft,
  type PlacementFit,
  type PlacementList,
} from '../../netlist';
import { refusedFor, type Answers, type ImportFile, type Outcome } from '../importer';
import { foreignBoard } from './index';
import { readBoardOf, type BoardSummary } from './summary';

/** A file of a board, with what goes with it. */
export interface DraftFile {
  readonly id: string;
  readonly file: ImportFile;
  readonly answers: Answers;
  readonly bill?: readonly BillLine[];
  readonly places?: PlacementList;
}

/** A draft that was made of open files, and how the placement list lies on the pads where one was given. */
export interface DraftMade {
  readonly draft: BoardDraft;
  readonly fit?: PlacementFit;
}

/** Reads a board's file and makes a draft of it: values from a bill of material and places from a list taken in where they are given. */
export function draftFromFile({ id, file, answers, bill, places }: DraftFile): Outcome<DraftMade, BoardSummary> {
  const outcome = foreignBoard.read(file, answers);
  if (outcome.kind === 'refused') return outcome;
  const { value: read, ...understood } = outcome;
  if (!read) return understood;
  const valued = bill ? withBill(read.foreign, bill) : read.foreign;
  const fit = places && fitPlacements(valued, places);
  if (fit && !fit.ok) return refusedFor(fit.problems);
  const foreign = places && fit ? withPlacements(valued, places, fit.value) : valued;
  const { inference } = foreign === read.foreign ? read : readBoardOf(foreign);
  return { ...understood, value: { draft: draftBoard(id, foreign, inference), ...(fit && { fit: fit.value }) } };
}
