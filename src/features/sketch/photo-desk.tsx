'use client';

import { useCallback, useEffect, useRef, useState, type MouseEvent, type PointerEvent } from 'react';
import { Box, Flex, Text, chakra } from '@chakra-ui/react';
import { outlineBox, type Board, type Side } from '@/core/board';
import type { Point } from '@/core/inspect';
import { parseFigure } from '@/core/units';
import { Headline, MainButton, PlainButton, ProblemNote, TextInput, face } from '@/ui';
import { straightenInWorker } from '@/workers/straighten/client';
import { keepPhoto } from './actions';

/** The corners in the order in which they are clicked. */
const CORNERS = ['top left', 'top right', 'bottom right', 'bottom left'] as const;
/** Larger photographs are refused: 24 megapixels and a margin for cameras that count their frame. */
const MOST_MEGAPIXELS = 25;
/** How much the loupe enlarges, and its side on the screen, px. */
const LOUPE = { times: 4, sidePx: 150 };

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
  const [frame, setFrame] = useState<Frame>();
  const [full, setFull] = useState<{ width: number; height: number }>();
  const [corners, setCorners] = useState<readonly Point[]>([]);
  const [at, setAt] = useState<Point & { readonly url: string }>();
  const [problem, setProblem] = useState<string>();
  const [busy, setBusy] = useState(false);
  const image = useRef<HTMLImageElement | null>(null);
  const cancel = useRef(() => {});
  const next = CORNERS[corners.length];

  useEffect(() => () => cancel.current(), []);
  /** The photograph stays in the browser: the picture is shown from where it lies, and let go with the page. */
  const show = useCallback(
    (shown: HTMLImageElement | null) => {
      if (!shown) return undefined;
      const url = URL.createObjectURL(file);
      const watcher = new ResizeObserver(() => {
        const { offsetLeft: left, offsetTop: top, clientWidth: width, clientHeight: height } = shown;
        setFrame({ left, top, width, height });
      });
      image.current = shown;
      shown.src = url;
      watcher.observe(shown);
      return () => {
        watcher.disconnect();
        URL.revokeObjectURL(url);
      };
    },
    [file],
  );

  const broken = (): void =>
    setProblem(
      file.size === 0
        ? `${file.name}: expected a picture; the file is empty.`
        : `${file.name}: expected a PNG, JPEG or WebP picture, or any other that this browser can show; got something else, or it is broken.`,
    );

  function opened(): void {
    const { naturalWidth: width, naturalHeight: height } = image.current!;
    if (width * height > MOST_MEGAPIXELS * 1e6)
      return setProblem(
        `${file.name}: expected at most ${MOST_MEGAPIXELS} megapixels; got ${Math.round((width * height) / 1e6)}. Scale it down and take it again.`,
      );
    setFull({ width, height });
  }

  /** Where a pointer is in the photograph, px of the photograph. */
  function placeOf(event: MouseEvent<HTMLElement>): Point {
    const shown = image.current!.getBoundingClientRect();
    const scale = full!.width / shown.width;
    return { x: (event.clientX - shown.left) * scale, y: (event.clientY - shown.top) * scale };
  }

  async function lay(): Promise<void> {
    const [width, height] = size
      .split(/[\s,;×x]+/)
      .filter(Boolean)
      .map((t) => parseFigure(t));
    if (!width?.ok || !height?.ok || width.value <= 0 || height.value <= 0)
      return setProblem(`Expected width and height in mm, as in 60 40; got "${size}".`);
    const sizeMm = [width.value, height.value] as const;
    const [w, h] = sizeMm;
    const mm: readonly Point[] = [
      { x: 0, y: 0 },
      { x: w, y: 0 },
      { x: w, y: h },
      { x: 0, y: h },
    ];
    setBusy(true);
    setProblem(undefined);
    const run = straightenInWorker({
      kind: 'lay',
      picture: file,
      points: corners.map((px, i) => ({ px, mm: mm[i] })),
      sizeMm,
    });
    cancel.current = run.cancel;
    const reply = await run.answer;
    if (reply.kind !== 'flat') {
      setBusy(false);
      if (reply.kind === 'problem') setProblem(reply.words);
      return;
    }
    const form = new FormData();
    form.set('picture', new File([reply.picture], `${side}.jpg`, { type: 'image/jpeg' }));
    const answer = await keepPhoto(board.id, side, reply.place, form, crypto.randomUUID()).catch(() => undefined);
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
      <Box
        position="relative"
        flex="1"
        minH="0"
        bg="mat"
        display="flex"
        justifyContent="center"
        alignItems="center"
        overflow="hidden"
      >
        <chakra.img
          ref={show}
          alt={`Photograph of the ${side}`}
          maxW="100%"
          maxH="100%"
          cursor={next ? 'crosshair' : 'default'}
          draggable={false}
          onLoad={opened}
          onError={broken}
          onPointerMove={(e: PointerEvent<HTMLImageElement>) =>
            full && setAt({ ...placeOf(e), url: e.currentTarget.src })
          }
          onPointerLeave={() => setAt(undefined)}
          onClick={(e: MouseEvent<HTMLImageElement>) => full && next && setCorners([...corners, placeOf(e)])}
        />
        {full && frame && <CornerMarks corners={corners} frame={frame} full={full} />}
        {full && at && next && <Loupe at={at} full={full} />}
      </Box>
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
            cancel.current();
            onDone();
          }}
        >
          Leave it
        </PlainButton>
      </Flex>
    </Flex>
  );
}

/** Where the photograph is shown, px of the page. */
interface Frame {
  readonly left: number;
  readonly top: number;
  readonly width: number;
  readonly height: number;
}

interface Full {
  readonly width: number;
  readonly height: number;
}

/** The corners that were clicked, joined as far as they go. */
function CornerMarks({ corners, frame, full }: { corners: readonly Point[]; frame: Frame; full: Full }) {
  return (
    <chakra.svg
      position="absolute"
      pointerEvents="none"
      left={`${frame.left}px`}
      top={`${frame.top}px`}
      width={`${frame.width}px`}
      height={`${frame.height}px`}
      viewBox={`0 0 ${full.width} ${full.height}`}
      color="matCopper"
      aria-hidden
    >
      <polygon
        points={corners.map((p) => `${p.x},${p.y}`).join(' ')}
        fill="none"
        stroke="currentColor"
        strokeWidth={full.width / 400}
      />
      {corners.map(({ x, y }, i) => (
        <g key={`${x} ${y}`} style={{ fontFamily: face.figures }}>
          <circle cx={x} cy={y} r={full.width / 130} fill="none" stroke="currentColor" strokeWidth={full.width / 400} />
          <text
            x={x}
            y={y - full.width / 90}
            textAnchor="middle"
            fill="currentColor"
            style={{ fontSize: full.width / 50 }}
          >
            {i + 1}
          </text>
        </g>
      ))}
    </chakra.svg>
  );
}

/** What is under the pointer, enlarged: corners are hit to a pixel of the photograph. */
function Loupe({ at: { x, y, url }, full }: { at: Point & { readonly url: string }; full: Full }) {
  const { times, sidePx } = LOUPE;
  const scale = Math.max(1, times * (900 / full.width));
  return (
    <Box
      position="absolute"
      right="3"
      top="3"
      border="1px solid"
      borderColor="matText"
      pointerEvents="none"
      aria-hidden
      style={{
        width: sidePx,
        height: sidePx,
        backgroundImage: `linear-gradient(currentColor, currentColor), linear-gradient(currentColor, currentColor), url(${url})`,
        backgroundSize: `1px 100%, 100% 1px, ${full.width * scale}px ${full.height * scale}px`,
        backgroundPosition: `center, center, ${sidePx / 2 - x * scale}px ${sidePx / 2 - y * scale}px`,
        backgroundRepeat: 'no-repeat',
      }}
      color="matCopper"
    />
  );
}
