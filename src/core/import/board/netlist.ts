import { foreignFromRecords, parseIpc356, UNITS_356, unitOf356, type Unit356 } from '../../netlist';
import { defineImporter, MIB, refusedFor, type Answers, type ImportFile, type Outcome } from '../importer';
import { headText, isText, textOf } from '../text/encoding';
import { boardSummary, likeNames, readBoardOf, UNITS_QUESTION, type BoardSummary, type ReadBoard } from './summary';

const isUnit = (text: string | undefined): text is Unit356 => text !== undefined && text in UNITS_356;

function readNetlist(file: ImportFile, answers: Answers): Outcome<ReadBoard, BoardSummary> {
  const { text } = textOf(file.bytes);
  const given = isUnit(answers.units) ? answers.units : undefined;
  const asked = unitOf356(text) === undefined && given === undefined;
  const parsed = parseIpc356(text, given ?? 'inch/10000');
  if (!parsed.ok) return refusedFor(parsed.problems);
  const board = readBoardOf(foreignFromRecords(parsed.value.records, parsed.value.notes));
  return {
    kind: 'understood',
    summary: boardSummary(board),
    questions: asked ? [UNITS_QUESTION] : [],
    notes: [...parsed.value.notes, ...likeNames(board.foreign)],
    value: asked ? undefined : board,
  };
}

export const boardNetlist = defineImporter<ReadBoard, BoardSummary>({
  id: 'board-netlist',
  title: 'a board’s netlist in IPC-D-356',
  mostBytes: 64 * MIB,
  score: ({ bytes }) => {
    if (!isText(bytes)) return 0;
    const head = headText(bytes, 8192);
    if (/^3[12]7\S.{10,}A\d\dX[+-]?\d+Y[+-]?\d+/m.test(head)) return 1;
    return /^P\s+(?:JOB|CODE|UNITS|DIM)\b/m.test(head) ? 0.8 : 0;
  },
  read: readNetlist,
});
