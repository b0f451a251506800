import { parseKicad } from '../../netlist';
import { defineImporter, MIB, refusedFor, type Outcome } from '../importer';
import { headText, isText, textOf } from '../text/encoding';
import { boardSummary, likeNames, readBoardOf, type BoardSummary, type ReadBoard } from './summary';

export const boardKicad = defineImporter<ReadBoard, BoardSummary>({
  id: 'board-kicad',
  title: 'a board of an open EDA suite (.kicad_pcb)',
  mostBytes: 64 * MIB,
  score: ({ bytes }) => (isText(bytes) && /^\s*\(kicad_pcb\b/.test(headText(bytes, 200)) ? 1 : 0),
  read: ({ bytes }): Outcome<ReadBoard, BoardSummary> => {
    const parsed = parseKicad(textOf(bytes).text);
    if (!parsed.ok) return refusedFor(parsed.problems);
    const board = readBoardOf(parsed.value);
    return {
      kind: 'understood',
      summary: boardSummary(board),
      questions: [],
      notes: [...parsed.value.notes, ...likeNames(parsed.value)],
      value: board,
    };
  },
});
