'use client';

import { useState } from 'react';
import { Flex, Text } from '@chakra-ui/react';
import { outlineBox, type Board, type Side } from '@/core/board';
import type { Point } from '@/core/site';
import { problemText } from '@/core/result';
import { parseSizeMm } from '@/core/units';
import { Headline, MainButton, PlainButton, ProblemNote, TextInput } from '@/ui';
import { flattenTask } from '@/workers/straighten/task';
import { useWorkerTask } from '@/workers/use-worker-task';
import { keepPhoto } from './actions';
import { ShownPhoto } from './shown-photo';

/** The corners in the order in which they are clicked. */
const CORNERS = ['top left', 'top right', 'bottom right', 'bottom left'] as const;
export interface PhotoDeskProps {
  readonly board: Board;
  readonly side: Side;
  readonly file: File;
  /** Ends the work on this photograph; with the board's size where it was said anew. */
  readonly onDone: (sizeMm?: readonly [number, number]) => void;
}

/** A photograph as it was taken: four clicks on the board's corners lay it flat under the drawing. */
export function PhotoDesk({ board, side, file, onDone }: PhotoDeskProps) {
  const box = outlineBox(board);
  const own = [box.x1 - box.x0, box.y1 - box.y0] as const;
  const [size, setSize] = useState(`${own[0]} ${own[1]}`);
  const [corners, setCorners] = useState<readonly Point[]>([]);
  const [problem, setProblem] = useState<string>();
  const [busy, setBusy] = useState(false);
  const { start, cancel } = useWorkerTask(flattenTask);
  const next = CORNERS[corners.length];

  async function lay(): Promise<void> {
    const read = parseSizeMm(size);
    if (!read.ok) return setProblem(problemText(read.problems));
    const sizeMm = read.value;
    const [w, h] = sizeMm;
    const mm: readonly Point[] = [
      { x: 0, y: 0 },
      { x: w, y: 0 },
      { x: w, y: h },
      { x: 0, y: h },
    ];
    setBusy(true);
    setProblem(undefined);
    const reply = await start({ picture: file, points: corners.map((px, i) => ({ px, mm: mm[i] })), sizeMm });
    if (reply.kind !== 'done') {
      setBusy(false);
      if (reply.kind === 'problem') setProblem(reply.message);
      return;
    }
    const form = new FormData();
    const { picture, place } = reply.value;
    form.set('picture', new File([picture], `${side}.jpg`, { type: 'image/jpeg' }));
    const answer = await keepPhoto(board.id, side, place, form, crypto.randomUUID()).catch(() => undefined);
    setBusy(false);
    if (!answer?.saved) return setProblem(answer?.message ?? 'No answer came: the photograph was not kept. Try again.');
    onDone(w !== own[0] || h !== own[1] || board.assumed?.includes('outline') ? sizeMm : undefined);
  }

  return (
    <Flex direction="column" h="100%" minH="480px">
      <Headline
        title={next ? `Click the board’s ${next} corner` : 'Lay it under the drawing'}
        aside={`${side}, ${corners.length} of 4 corners`}
      >
        {next
          ? 'As you see it in this photograph, clockwise. Where a corner is rounded, click where its edges would meet.'
          : 'The four corners and the board’s size say where everything in the photograph is.'}
      </Headline>
      {problem && <ProblemNote text={problem} />}
      <ShownPhoto
        file={file}
        alt={`Photograph of the ${side}`}
        corners={corners}
        onCorner={next ? (corner) => setCorners([...corners, corner]) : undefined}
        onProblem={setProblem}
      />
      <Flex mt="3" gap="4" align="center" wrap="wrap">
        <MainButton type="button" disabled={busy || corners.length < 4} onClick={() => void lay()}>
          {busy ? 'Laying it flat …' : 'Lay it under the drawing'}
        </MainButton>
        <Flex gap="2" align="center">
          <TextInput
            aria-label="Width and height of the board, mm"
            value={size}
            w="90px"
            fontFamily="mono"
            onChange={(e) => setSize(e.target.value)}
          />
          <Text as="span" color="quiet">
            mm wide and high
          </Text>
        </Flex>
        <PlainButton type="button" disabled={corners.length === 0} onClick={() => setCorners(corners.slice(0, -1))}>
          Take a corner back
        </PlainButton>
        <PlainButton
          type="button"
          onClick={() => {
            cancel();
            onDone();
          }}
        >
          Leave it
        </PlainButton>
      </Flex>
    </Flex>
  );
}
