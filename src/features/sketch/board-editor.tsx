'use client';

import { useReducer, useState, type ReactNode } from 'react';
import { useRouter } from 'next/navigation';
import { Flex } from '@chakra-ui/react';
import { applyCompletion, grammarForms } from '@/core/command-line';
import { outlineBox, partByRef, type Board, type Part, type Side } from '@/core/board';
import { problemText } from '@/core/result';
import { SKETCH_GRAMMAR, applyBoardEdit, completeSketchLine, parseSketchLine, type BoardEdit } from '@/core/sketch';
import { BoardDrawing } from '@/drawings/board-drawing';
import {
  EntryBar,
  EntryOfferProvider,
  Headline,
  ProblemNote,
  Sheet,
  type Echo,
  type EntryAnswer,
  type EntryCommand,
} from '@/ui';
import { CarryPart } from './carry-part';
import {
  editingAfter,
  partsToPlace,
  placed,
  startEditing,
  type BodyOnBoard,
  type EditingAction,
  type EditorPhoto,
} from './editing';
import { KeepBar, useKeeping } from './keep-board';
import { PartPanel } from './part-panel';
import { PhotoDesk } from './photo-desk';
import { PhotoPart } from './photo-part';
import { useBodies } from './use-bodies';
import { useFirstPin } from './use-first-pin';

export interface BoardEditorProps {
  readonly strip: ReactNode;
  readonly board: Board;
  readonly revision: number;
  readonly photos: readonly EditorPhoto[];
}

const FORMS = grammarForms(SKETCH_GRAMMAR);

/** A board in the making: its drawing over its photographs, what is still to be said, and the line in which it is said. */
export function BoardEditor({ strip, board: opened, revision, photos }: BoardEditorProps) {
  const router = useRouter();
  const [work, dispatch] = useReducer(editingAfter, undefined, () => startEditing(opened, revision));
  const [picked, setPicked] = useState<string>();
  const [picture, setPicture] = useState<{ side: Side; file: File }>();
  const { board, version } = work;
  const toPlace = partsToPlace(board, work.skipped);
  const part = (picked !== undefined && partByRef(board, picked)) || undefined;
  const next = part ?? toPlace[0];
  const isPlacing = next !== undefined && next.assumed?.includes('place') === true;
  const edit = (made: BoardEdit): void => dispatch({ kind: 'edit', edit: made });

  const firstPin = useFirstPin(board, isPlacing ? undefined : part, edit);
  const { keep, busy, answer } = useKeeping(work, dispatch);

  function echo(text: string): Echo {
    const read = parseSketchLine(board, text);
    return read.ok
      ? { message: read.value.echo, state: 'plain' }
      : { message: problemText(read.problems), state: 'problem' };
  }
  async function submit(text: string): Promise<EntryAnswer> {
    const read = parseSketchLine(board, text);
    const made = read.ok ? applyBoardEdit(board, read.value.edit) : read;
    if (!made.ok || !read.ok) return { saved: false, message: problemText(made.ok ? [] : made.problems) };
    edit(read.value.edit);
    if ('ref' in read.value.edit) setPicked(undefined);
    return { saved: true, message: `${read.value.echo}.`, seq: version + 1 };
  }

  const { x0, x1 } = outlineBox(board);
  const bodies = useBodies(photos, x1 - x0);
  const pictures = Object.fromEntries(photos.map((p) => [p.side, `/pictures/${p.sha256}`]));
  return (
    <EntryOfferProvider>
      <Sheet
        strip={strip}
        sidebar={
          <>
            {part && (
              <PartPanel
                board={board}
                part={part}
                onEdit={edit}
                onFirstPin={firstPin.ask}
                onDone={() => setPicked(undefined)}
              />
            )}
            <PhotoPart photos={photos} onFile={(side, file) => setPicture({ side, file })} />
            <CarryPart board={board} />
          </>
        }
        entry={
          <EntryBar
            name={`board ${board.id}`}
            placeholder="u4 is the controller"
            echo={echo}
            complete={(text) => completeSketchLine(board, text)}
            applyCompletion={applyCompletion}
            submit={submit}
            version={version}
            forms={FORMS}
            commands={commandsOf(next, dispatch, keep, part && !isPlacing ? firstPin.ask : undefined)}
          />
        }
      >
        {picture ? (
          <PhotoDesk
            key={picture.file.name + picture.file.size}
            board={board}
            side={picture.side}
            file={picture.file}
            onDone={(sizeMm) => {
              setPicture(undefined);
              if (sizeMm) edit({ kind: 'size', sizeMm });
              router.refresh();
            }}
          />
        ) : (
          <Flex direction="column" h="100%" minH="480px">
            <Asked
              next={isPlacing ? next : undefined}
              part={part}
              pinOf={firstPin.of}
              board={board}
              left={toPlace.length}
            />
            <BoardDrawing
              board={board}
              marks={board.points.map((p) => ({ name: p.id, xMm: p.xMm, yMm: p.yMm, side: p.side, state: 'plain' }))}
              lit={next ? [next.ref] : []}
              photos={pictures}
              seen={bodies.filter((b) => !board.parts.some((p) => isOn(p, b)))}
              onPick={setPicked}
              hand={{
                ...(isPlacing && {
                  onPlace: (xMm, yMm, side) => {
                    edit(placed(next.ref, { xMm, yMm, side }, bodies));
                    setPicked(undefined);
                  },
                }),
                ...(firstPin.of && { onPlace: firstPin.answer }),
                picks: (ref) => !firstPin.of && !partByRef(board, ref)?.assumed?.includes('place'),
                onMove: (ref, xMm, yMm) => edit({ kind: 'place', ref, xMm, yMm }),
              }}
            />
            {firstPin.problem && <ProblemNote text={firstPin.problem} />}
            {work.problem && <ProblemNote text={work.problem} />}
            <KeepBar work={work} busy={busy} answer={answer} onKeep={keep} onUndo={() => dispatch({ kind: 'undo' })} />
          </Flex>
        )}
      </Sheet>
    </EntryOfferProvider>
  );
}

/** What is asked now, in large type, and how it is answered. */
function Asked({
  next,
  part,
  pinOf,
  board,
  left,
}: {
  next?: Part;
  part?: Part;
  pinOf?: Part;
  board: Board;
  left: number;
}) {
  const [title, how] = next
    ? [
        `Where is ${next.ref}, the ${next.what}?`,
        'Click its middle. Shift R turns it, Shift N says it is not there, Shift S leaves it for later.',
      ]
    : pinOf
      ? [
          `Where is pin 1 of ${pinOf.ref}?`,
          'Click the corner, or the end, that its mark is at. Shift P leaves it as it is.',
        ]
      : [
          part ? `${part.ref}, ${part.what}` : 'Every part has its place',
          'Click a part to see what is known of it, drag it to where it is, or type what you found.',
        ];
  return (
    <Headline title={title} aside={`${board.parts.length - left} of ${board.parts.length} placed`}>
      {how}
    </Headline>
  );
}

type Dispatch = (step: EditingAction) => void;

/** The keys of the editor; those of a part only while one is asked for. */
function commandsOf(
  next: Part | undefined,
  dispatch: Dispatch,
  keep: () => void,
  firstPin?: () => void,
): EntryCommand[] {
  const edit = (made: BoardEdit): void => dispatch({ kind: 'edit', edit: made });
  return [
    { key: 'U', label: 'undo', run: () => dispatch({ kind: 'undo' }) },
    { key: 'Y', label: 'again', run: () => dispatch({ kind: 'redo' }), quiet: true },
    ...(next
      ? [
          {
            key: 'R',
            label: `turn ${next.ref}`,
            run: () => edit({ ...asPlaced(next), rotationDeg: next.rotationDeg + 90 }),
          },
          { key: 'N', label: `no ${next.ref} here`, run: () => edit({ kind: 'remove', ref: next.ref }) },
          { key: 'S', label: 'later', run: () => dispatch({ kind: 'skip', ref: next.ref }) },
        ]
      : []),
    ...(firstPin ? [{ key: 'P', label: 'pin 1', run: firstPin }] : []),
    { key: 'K', label: 'keep', run: keep },
  ];
}

/** True where a part was laid onto a body. */
const isOn = (part: Part, body: BodyOnBoard): boolean =>
  part.side === body.side &&
  !part.assumed?.includes('place') &&
  Math.abs(part.xMm - body.xMm) < body.sizeMm[0] / 2 &&
  Math.abs(part.yMm - body.yMm) < body.sizeMm[1] / 2;

/** A part where it is now, as an edit: turning it says that this is its place only once it was placed. */
const asPlaced = ({ ref, xMm, yMm }: Board['parts'][number]) => ({ kind: 'place', ref, xMm, yMm }) as const;
