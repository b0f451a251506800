'use client';

import { useMemo, useState, type ReactNode } from 'react';
import { Flex, Text } from '@chakra-ui/react';
import type { Board } from '@/core/board';
import { figureLabelOf, measurementTitle, placeOf, readingName, testCaution } from '@/core/diagnose';
import { referenceTable, type ReferenceReading } from '@/core/reference';
import { problemText } from '@/core/result';
import { comparedWithGood, goodBoardsOf, parseGoodFigure, withGoodBoards, type GoodPoint } from '@/core/sketch';
import { BoardDrawing, type BoardDrawingProps } from '@/drawings/board-drawing';
import {
  CautionNote,
  EntryBar,
  EntryOfferProvider,
  FigureLine,
  Headline,
  Named,
  SelectBox,
  Sheet,
  SidebarPart,
  type Echo,
  type EntryAnswer,
} from '@/ui';
import { carryTask } from '@/workers/carry/task';
import { useComputed } from '@/workers/use-worker-task';
import { keepGoodReading } from './actions';
import { CarryPart } from './carry-part';

export interface GoodWalkProps {
  readonly strip: ReactNode;
  readonly board: Board;
  readonly references: readonly ReferenceReading[];
  readonly photos: BoardDrawingProps['photos'];
}

const FORMS = [
  { example: '340', help: 'what the meter shows: ohms, or volts' },
  { example: '1k2', help: 'the same with a prefix' },
] as const;

/** A walk over a known-good board: the points that matter one after the other, each kept as what good boards read. */
export function GoodWalk({ strip, board, references, photos }: GoodWalkProps) {
  const points = useComputed(carryTask, board).last?.value.walk;
  const { walked, next: another } = useMemo(() => goodBoardsOf(references), [references]);
  const [source, setSource] = useState(another);
  const [left, setLeft] = useState<ReadonlySet<string>>(new Set());
  const read = new Map(references.flatMap((r) => (r.source === source ? [[r.point, r.value] as const] : [])));
  const others = references.filter((r) => r.source !== source);
  const due = points?.find((p) => !read.has(p.id) && !left.has(p.id));
  const lastRead = points?.filter((p) => read.has(p.id)).at(-1);

  function echo(text: string): Echo | undefined {
    if (!due) return undefined;
    const figure = parseGoodFigure(due, text);
    if (!figure.ok) return { message: problemText(figure.problems), state: 'problem' };
    const { label, isOdd } = comparedWithGood(due, figure.value, others);
    return { message: label, state: isOdd ? 'bad' : 'good' };
  }
  async function submit(text: string, key: string): Promise<EntryAnswer> {
    if (!due) return { saved: false, message: 'Every point of this walk is read or left out.' };
    const figure = parseGoodFigure(due, text);
    if (!figure.ok) return { saved: false, message: problemText(figure.problems) };
    const kept = await keepGoodReading({ boardId: board.id, point: due.id, value: figure.value, source }, key);
    const { label } = comparedWithGood(due, figure.value, others);
    // The next line waits until the page asks for the next point: typed sooner it would count for this one.
    return kept.saved
      ? { saved: true, message: `${readingName(board, due.measurement)}, ${label}.`, seq: read.size + 1 }
      : kept;
  }

  const place = due && placeOf(board, due.measurement, lastRead && placeOf(board, lastRead.measurement));
  const narrowed = useMemo(() => withGoodBoards(board, referenceTable(references)), [board, references]);
  return (
    <EntryOfferProvider>
      <Sheet
        strip={strip}
        sidebar={
          <>
            <SidebarPart title="Which good board">
              <Named name="Its readings are taken back as one">
                <SelectBox
                  value={source}
                  options={[...new Set([...walked, source, another])].map((name) => [name, name] as const)}
                  onChange={setSource}
                />
              </Named>
            </SidebarPart>
            <ReadPart board={board} points={points ?? []} read={read} />
            <CarryPart board={narrowed} isAsking />
          </>
        }
        entry={
          <EntryBar
            key={source}
            name={`good ${board.id}`}
            placeholder={due ? 'what the meter shows' : 'nothing is due'}
            echo={echo}
            complete={() => []}
            applyCompletion={(text) => text}
            submit={submit}
            version={read.size}
            forms={FORMS}
            commands={
              due
                ? [{ key: 'N', label: 'leave it out', run: () => setLeft((before) => new Set(before).add(due.id)) }]
                : []
            }
          />
        }
      >
        <Flex direction="column" h="100%" minH="480px">
          <DueHeadline board={board} points={points} due={due} done={read.size} near={place} />
          {due && <Mind point={due} first={!points?.some((p) => p.isPowered && read.has(p.id))} />}
          <BoardDrawing
            board={board}
            marks={place ? [{ ...place, state: 'asked' }] : []}
            lit={[]}
            photos={photos}
            onPick={() => {}}
          />
        </Flex>
      </Sheet>
    </EntryOfferProvider>
  );
}

/** Which point is due, in large type. */
function DueHeadline({
  board,
  points,
  due,
  done,
  near,
}: {
  board: Board;
  points?: readonly GoodPoint[];
  due?: GoodPoint;
  done: number;
  near: Parameters<typeof measurementTitle>[2];
}) {
  if (!points) return <Headline title="Which points matter here?">Weighing what each would tell …</Headline>;
  if (!due)
    return (
      <Headline
        title={points.length === 0 ? 'Nothing on this board is read alone' : 'Every point is read'}
        aside={`${done} readings`}
      >
        {points.length === 0
          ? 'Name its rails, or lay its capacitors: readings are taken there.'
          : 'A second good board gives every point an interval; choose it beside.'}
      </Headline>
    );
  const at = points.indexOf(due) + 1;
  return (
    <Headline title={measurementTitle(board, due.measurement, near)} aside={`${at} of ${points.length}`}>
      {readingName(board, due.measurement)}.{' '}
      {due.isPowered
        ? 'On a board that works, plugged in, at its full level: type what the meter shows.'
        : 'On a board that works, pack out and nothing plugged in: type what the meter shows.'}
    </Headline>
  );
}

/** What has to be minded at this point. */
function Mind({ point: { isPowered, measurement }, first }: { point: GoodPoint; first: boolean }) {
  const caution = testCaution(measurement);
  if (isPowered && first)
    return (
      <CautionNote
        title="Power from here on."
        text="One slipped probe shorts two nets of a board that worked. Set a current limit, and keep to your local rules."
      />
    );
  return caution ? <CautionNote title="Mind:" text={caution} /> : null;
}

/** What was read of this board, the newest last. */
function ReadPart({
  board,
  points,
  read,
}: {
  board: Board;
  points: readonly GoodPoint[];
  read: ReadonlyMap<string, number>;
}) {
  const rows = points.filter((p) => read.has(p.id));
  return (
    <SidebarPart title="Read of this one">
      {rows.length === 0 && (
        <Text fontSize="14px" color="quiet">
          Nothing yet. Each reading narrows what is asked of boards that come in broken.
        </Text>
      )}
      {rows.map(({ id, measurement }) => (
        <FigureLine key={id} name={readingName(board, measurement)} value={figureLabelOf(measurement, read.get(id)!)} />
      ))}
    </SidebarPart>
  );
}
