import type { Importer } from '../importer';
import { boardIpc2581 } from './ipc2581';
import { boardKicad } from './kicad';
import { boardNetlist } from './netlist';
import type { BoardSummary, ReadBoard } from './summary';

export { boardIpc2581 } from './ipc2581';
export { boardKicad } from './kicad';
export { boardNetlist } from './netlist';
export { billOfMaterial } from './bill';
export { placementTable } from './placement';
export { readBoardOf, type ReadBoard } from './summary';

const KINDS = [boardNetlist, boardKicad, boardIpc2581] as const;

/** Any file of a board, by its content: where a screen wants a board and nothing else. */
export const foreignBoard: Pick<Importer<ReadBoard, BoardSummary>, 'title' | 'mostBytes' | 'read'> = {
  title: 'a board in an open format',
  mostBytes: Math.max(...KINDS.map((k) => k.mostBytes)),
  read: (file, answers) => KINDS.reduce((a, b) => (b.score(file) > a.score(file) ? b : a)).read(file, answers),
};
