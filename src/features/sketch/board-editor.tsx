'use client';

import { useReducer, useRef, useState, useTransition, type ReactNode } from 'react';
import NextLink from 'next/link';
import { useRouter } from 'next/navigation';
import { Box, Flex, Link, Text } from '@chakra-ui/react';
import { applyCompletion, grammarForms } from '@/core/command-line';
import { outlineBox, partByRef, type Board, type Part, type Side } from '@/core/board';
import { problemText } from '@/core/result';
import { SKETCH_GRAMMAR, applyBoardEdit, completeSketchLine, parseSketchLine, type BoardEdit } from '@/core/sketch';
import { BoardDrawing } from '@/drawings/board-drawing';
import {
  EntryBar,
  EntryOfferProvider,
  Headline,
  MainButton,
  PlainButton,
  ProblemNote,
  Sheet,
  type Echo,
  type EntryAnswer,
} from '@/ui';
import { keepBoard } from './actions';
import { CarryPart } from './carry-part';
import { editingAfter, partsToPlace, placed, startEditing, type BodyOnBoard, type EditorPhoto } from './editing';
import { PartPanel } from './part-panel';
import { PhotoDesk } from './photo-desk';
import { PhotoPart } from './photo-part';
import { useBodies } from './use-bodies';

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
  const [answer, setAnswer] = useState<{ saved: boolean; message: string }>();
  const [busy, startKeeping] = useTransition();
  const key = useRef<string>(crypto.randomUUID());
  const { board, kept, version } = work;
  const toPlace = partsToPlace(board, work.skipped);
  const part = (picked !== undefined && partByRef(board, picked)) || undefined;
  const next = part ?? toPlace[0];
  const isPlacing = next !== undefined && next.assumed?.includes('place') === true;
  const edit = (made: BoardEdit): void => dispatch({ kind: 'edit', edit: made });

  function keep(): void {
    startKeeping(async () => {
      const result = await keepBoard(board.id, work.revision, JSON.stringify(board), key.current).catch(
        () => undefined,
      );
      if (!result) return setAnswer({ saved: false, message: 'No answer came. Press again: it is not kept twice.' });
      key.current = crypto.randomUUID();
      setAnswer(result);
      if (!result.saved) return;
      const now = /file (\d+)/.exec(result.message)?.[1];
      dispatch({ kind: 'kept', board, revision: now === undefined ? work.revision : Number(now) });
      router.refresh();
    });
  }

  function echo(text: string): Echo {
    const read = parseSketchLine(board, text);
    return read.ok
      ? { words: read.value.echo, state: 'plain' }
      : { words: problemText(read.problems), state: 'problem' };
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
  const changed = board !== kept;
  const pictures = Object.fromEntries(photos.map((p) => [p.side, `/pictures/${p.sha256}`]));
  return (
    <EntryOfferProvider>
      <Sheet
        strip={strip}
        sidebar={
          <>
            {part && <PartPanel board={board} part={part} onEdit={edit} onDone={() => setPicked(undefined)} />}
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
            commands={[
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
              { key: 'K', label: 'keep', run: keep },
            ]}
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
            <Headline
              title={
                isPlacing
                  ? `Where is ${next.ref}, the ${next.what}?`
                  : part
                    ? `${part.ref}, ${part.what}`
                    : 'Every part has its place'
              }
              aside={`${board.parts.length - toPlace.length} of ${board.parts.length} placed`}
            >
              {isPlacing
                ? 'Click its middle. Shift R turns it, Shift N says it is not there, Shift S leaves it for later.'
                : 'Click a part to see what is known of it, drag it to where it is, or type what you found.'}
            </Headline>
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
                picks: (ref) => !partByRef(board, ref)?.assumed?.includes('place'),
                onMove: (ref, xMm, yMm) => edit({ kind: 'place', ref, xMm, yMm }),
              }}
            />
            {work.problem && <ProblemNote text={work.problem} />}
            <Flex mt="3" gap="4" align="center" wrap="wrap">
              <MainButton type="button" disabled={busy || !changed} onClick={keep}>
                Keep this board
              </MainButton>
              <PlainButton type="button" disabled={work.past.length === 0} onClick={() => dispatch({ kind: 'undo' })}>
                Undo
              </PlainButton>
              <Box
                flex="1"
                minW="200px"
                fontSize="14px"
                color={answer && !answer.saved ? 'rust' : 'quiet'}
                role="status"
              >
                {changed ? 'Not kept yet.' : (answer?.message ?? `File ${work.revision}.`)}
              </Box>
              <Text fontSize="15px">
                <Link asChild color="copperText" textDecoration="underline">
                  <NextLink href={`/jobs/new?board=${board.id}`}>Open a job on it</NextLink>
                </Link>
              </Text>
            </Flex>
            {answer && !answer.saved && <ProblemNote text={answer.message} />}
          </Flex>
        )}
      </Sheet>
    </EntryOfferProvider>
  );
}

/** True where a part was laid onto a body. */
const isOn = (part: Part, body: BodyOnBoard): boolean =>
  part.side === body.side &&
  !part.assumed?.includes('place') &&
  Math.abs(part.xMm - body.xMm) < body.sizeMm[0] / 2 &&
  Math.abs(part.yMm - body.yMm) < body.sizeMm[1] / 2;

/** A part where it is now, as an edit: turning it says that this is its place only once it was placed. */
const asPlaced = ({ ref, xMm, yMm }: Board['parts'][number]) => ({ kind: 'place', ref, xMm, yMm }) as const;
