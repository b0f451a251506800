import { firstFew, MIRRORINGS, parseIpc2581, type Mirroring } from '../../netlist';
import { defineImporter, MIB, refusedFor, type Answers, type ImportQuestion, type Outcome } from '../importer';
import { headText, isText, textOf } from '../text/encoding';
import { boardSummary, likeNames, readBoardOf, type BoardSummary, type ReadBoard } from './summary';

const isMirroring = (text: string | undefined): text is Mirroring => MIRRORINGS.some((m) => m === text);

export const boardIpc2581 = defineImporter<ReadBoard, BoardSummary>({
  id: 'board-ipc2581',
  title: 'a board in IPC-2581',
  mostBytes: 128 * MIB,
  score: ({ bytes }) => (isText(bytes) && /<(?:\w+:)?IPC-2581\b/.test(headText(bytes, 4096)) ? 1 : 0),
  read: ({ bytes }, answers: Answers): Outcome<ReadBoard, BoardSummary> => {
    const mirroring = isMirroring(answers.back) ? answers.back : undefined;
    const parsed = parseIpc2581(textOf(bytes).text, { mirroring, step: answers.board });
    if (!parsed.ok) return refusedFor(parsed.problems);
    const { board: foreign, mirroringOpen, steps } = parsed.value;
    const board = readBoardOf(foreign);
    const questions: ImportQuestion[] = [
      ...(steps.length > 1 && answers.board === undefined
        ? [{ id: 'board', why: `The file holds ${steps.length} boards.`, choices: steps }]
        : []),
      ...(mirroringOpen.length > 0
        ? [
            {
              id: 'back',
              why: `Writers differ in how parts of the back are mirrored, and nothing in the file shows it. It matters for ${firstFew(mirroringOpen)}.`,
              choices: [...MIRRORINGS],
            },
          ]
        : []),
    ];
    return {
      kind: 'understood',
      summary: boardSummary(board),
      questions,
      notes: [...foreign.notes, ...likeNames(foreign)],
      value: questions.length > 0 ? undefined : board,
    };
  },
});
