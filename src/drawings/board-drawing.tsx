'use client';

import { useEffect, useMemo, useRef, useState } from 'react';
import { Box, Flex, chakra } from '@chakra-ui/react';
import { select } from 'd3-selection';
import { zoom, zoomIdentity, type ZoomBehavior, type ZoomTransform } from 'd3-zoom';
import { outlineBox, padsOf, partByRef, type Board, type Part, type Side } from '@/core/board';
import { namesWithRoom } from './names-with-room';
import { PartShape } from './part-shape';
import { FILLING, face, tone } from '@/ui';
import { mirrored, refAt, useGrip, type BoxMm, type DrawingHand } from './use-grip';

export interface BoardMark {
  readonly name: string;
  readonly xMm: number;
  readonly yMm: number;
  readonly side: Side;
  readonly state: 'asked' | 'good' | 'bad' | 'plain' | 'faint';
}

export interface BoardDrawingProps {
  readonly board: Board;
  readonly marks: readonly BoardMark[];
  /** Parts drawn in copper: the suspects, the worked part. */
  readonly lit?: readonly string[];
  /** Draws a line from the asked point over this net to the lit part. */
  readonly net?: string;
  readonly onPick?: (name: string) => void;
  /** Straightened photographs under the drawing, by side, as the side is seen. */
  readonly photos?: Readonly<Partial<Record<Side, string>>>;
  /** Outlines that were seen in a photograph. */
  readonly seen?: readonly SeenOutline[];
  /** Set where parts can be laid by hand. */
  readonly hand?: DrawingHand;
}

export interface SeenOutline {
  readonly xMm: number;
  readonly yMm: number;
  readonly sizeMm: readonly [number, number];
  readonly side: Side;
}

const MARGIN_MM = 3;

const LABEL_PX = 13;

/** The board as a drawing on the mat: pan with the pointer, zoom with the wheel, either side. */
export function BoardDrawing({ board, marks, lit = [], net, onPick, photos = {}, seen = [], hand }: BoardDrawingProps) {
  const asked = marks.find((m) => m.state === 'asked');
  const [picked, setPicked] = useState<{ side: Side; for?: string }>();
  const side = picked && picked.for === asked?.name ? picked.side : (asked?.side ?? 'front');
  const frame = useRef<SVGSVGElement>(null);
  const zooming = useRef<ZoomBehavior<SVGSVGElement, unknown>>(null);
  const [size, setSize] = useState({ w: 736, h: 420 });
  const [view, setView] = useState<ZoomTransform>(zoomIdentity);
  const inner = useRef<SVGGElement>(null);
  const isHandled = useRef(false);

  useEffect(() => {
    const svg = frame.current!;
    const watcher = new ResizeObserver(([entry]) =>
      setSize({ w: entry.contentRect.width, h: entry.contentRect.height }),
    );
    watcher.observe(svg);
    const behaviour = zoom<SVGSVGElement, unknown>()
      .scaleExtent([1, 16])
      // What a hand drags is a part, not the paper.
      .filter(
        (event: MouseEvent) =>
          !event.ctrlKey && !event.button && !(isHandled.current && event.type !== 'wheel' && refAt(event.target)),
      )
      .on('zoom', (event: { transform: ZoomTransform }) => setView(event.transform));
    zooming.current = behaviour;
    select(svg).call(behaviour);
    return () => watcher.disconnect();
  }, []);

  const box = useMemo(() => outlineBox(board), [board]);
  const w = box.x1 - box.x0 + 2 * MARGIN_MM;
  const h = box.y1 - box.y0 + 2 * MARGIN_MM;
  const fit = Math.min(size.w / w, size.h / h);
  const px = 1 / (fit * view.k);
  const flip = side === 'back' ? `translate(${box.x0 + box.x1} 0) scale(-1 1)` : '';
  const photo = photos[side];
  // Over a photograph what nobody has placed yet would only lie about.
  const shown = board.parts.filter(
    (p) => p.side === side && !(photo && p.assumed?.includes('place') && !lit.includes(p.ref)),
  );
  const label = LABEL_PX * px;
  const matters = (p: Part): boolean => lit.includes(p.ref) || marks.some((m) => m.name === p.ref);
  const named = namesWithRoom(
    shown.filter((part) => isNamed(board, part, lit, marks, 1 / px)),
    (part) => board.packages[part.package].bodyMm[0] * board.packages[part.package].bodyMm[1],
    label,
    matters,
  );
  const { held, ...grip } = useGrip({ inner, side, box, hand, onPick });
  useEffect(() => {
    isHandled.current = hand !== undefined;
  }, [hand]);

  return (
    <Box position="relative" flex="1" minH="260px" bg="mat">
      <svg
        ref={frame}
        role="img"
        aria-label={`${board.device} ${board.name}, ${side} side${asked ? `, ${asked.name} asked for` : ''}`}
        style={{ ...FILLING, fontFamily: face.figures }}
        cursor="grab"
        color={tone.matLine}
        preserveAspectRatio="xMidYMid meet"
        viewBox={`${box.x0 - MARGIN_MM} ${box.y0 - MARGIN_MM} ${w} ${h}`}
        {...(hand && grip)}
      >
        <g ref={inner} transform={viewTransform(view, size, fit, box)}>
          {photo && (
            <image
              href={photo}
              x={box.x0}
              y={box.y0}
              width={box.x1 - box.x0}
              height={box.y1 - box.y0}
              preserveAspectRatio="none"
            />
          )}
          <g transform={flip}>
            {board.shields
              .filter((s) => s.side === side)
              .map((s) => (
                <rect
                  key={s.id}
                  x={s.xMm - s.sizeMm[0] / 2}
                  y={s.yMm - s.sizeMm[1] / 2}
                  width={s.sizeMm[0]}
                  height={s.sizeMm[1]}
                  fill="none"
                  stroke="currentColor"
                  strokeWidth={1.4 * px}
                  strokeDasharray={`${6 * px} ${3 * px}`}
                >
                  <title>{`Shield ${s.id}`}</title>
                </rect>
              ))}
            <path d={outlinePath(board)} fill="none" stroke="currentColor" strokeWidth={1.4 * px} />
            {net && asked && asked.side === side && <NetLine board={board} net={net} from={asked} lit={lit} px={px} />}
            {seen
              .filter((s) => s.side === side)
              .map(({ xMm, yMm, sizeMm: [sw, sh] }) => (
                <rect
                  key={`${xMm} ${yMm}`}
                  x={xMm - sw / 2}
                  y={yMm - sh / 2}
                  width={sw}
                  height={sh}
                  fill="none"
                  stroke={tone.matCopper}
                  strokeWidth={1.2 * px}
                  strokeDasharray={`${4 * px} ${3 * px}`}
                />
              ))}
            {shown.map((part) => (
              <PartShape
                key={part.ref}
                board={board}
                part={held?.ref === part.ref ? { ...part, xMm: held.xMm, yMm: held.yMm } : part}
                px={px}
                lit={lit.includes(part.ref)}
                clear={photo !== undefined}
                onPick={hand ? undefined : onPick}
              />
            ))}
          </g>
          {named.map((part) => (
            <PartName
              key={part.ref}
              board={board}
              part={part}
              size={label}
              lit={lit.includes(part.ref)}
              marked={marks.some((m) => m.name === part.ref)}
              x={mirrored(part.xMm, side, box)}
            />
          ))}
          {marks
            .filter((m) => m.side === side)
            .map((m) => (
              <Mark key={`${m.name} ${m.state}`} mark={m} x={mirrored(m.xMm, side, box)} px={px} onPick={onPick} />
            ))}
        </g>
      </svg>
      <Flex
        position="absolute"
        left="3"
        right="3"
        bottom="2"
        justify="space-between"
        color="matText"
        fontSize="13px"
        pointerEvents="none"
      >
        <Flex gap="3" pointerEvents="auto">
          {(['front', 'back'] as const).map((s) => (
            <chakra.button
              key={s}
              type="button"
              cursor="pointer"
              aria-pressed={side === s}
              borderBottom="2px solid"
              borderColor={side === s ? 'matCopper' : 'transparent'}
              onClick={() => setPicked({ side: s, for: asked?.name })}
            >
              {s} side
            </chakra.button>
          ))}
          {view !== zoomIdentity && view.k !== 1 && (
            <chakra.button
              type="button"
              cursor="pointer"
              onClick={() => select(frame.current!).call(zooming.current!.transform, zoomIdentity)}
            >
              whole board
            </chakra.button>
          )}
        </Flex>
        <span>
          {Math.round(box.x1 - box.x0)} × {Math.round(box.y1 - box.y0)} mm
        </span>
      </Flex>
    </Box>
  );
}

/** The zoom works in pixels of the element; inside the drawing everything is in millimetres. */
function viewTransform(view: ZoomTransform, size: { w: number; h: number }, fit: number, box: BoxMm): string {
  const w = box.x1 - box.x0 + 2 * MARGIN_MM;
  const h = box.y1 - box.y0 + 2 * MARGIN_MM;
  const left = (size.w - w * fit) / 2;
  const top = (size.h - h * fit) / 2;
  const [x0, y0] = [box.x0 - MARGIN_MM, box.y0 - MARGIN_MM];
  const tx = (view.x + left * (view.k - 1)) / fit + x0 * (1 - view.k);
  const ty = (view.y + top * (view.k - 1)) / fit + y0 * (1 - view.k);
  return `translate(${tx} ${ty}) scale(${view.k})`;
}

const outlinePath = (board: Board): string => `M${board.outlineMm.map(([x, y]) => `${x} ${y}`).join('L')}Z`;

const BIG_MM2 = 5;

/** Names are shown where they help: large parts always, small ones when lit, asked for, or when there is room. */
function isNamed(
  board: Board,
  part: Part,
  lit: readonly string[],
  marks: readonly BoardMark[],
  pxPerMm: number,
): boolean {
  const [w, h] = board.packages[part.package].bodyMm;
  return (
    lit.includes(part.ref) ||
    w * h >= BIG_MM2 ||
    marks.some((m) => m.name === part.ref && m.state !== 'faint') ||
    pxPerMm > 26
  );
}

interface PartNameProps {
  readonly board: Board;
  readonly part: Part;
  readonly size: number;
  readonly lit: boolean;
  /** A mark lies on the part: its name moves out of the way. */
  readonly marked: boolean;
  readonly x: number;
}

function PartName({ board, part, size, lit, marked, x }: PartNameProps) {
  const [w, h] = board.packages[part.package].bodyMm;
  const quarter = Math.abs(Math.round(part.rotationDeg / 90)) % 2 === 1;
  const [bw, bh] = quarter ? [h, w] : [w, h];
  const inside = !marked && bw > size * 0.62 * part.ref.length && bh > size;
  return (
    <text
      x={x}
      y={inside ? part.yMm + size * 0.35 : part.yMm - Math.max(bh / 2, marked ? size * 0.5 : 0) - size * 0.3}
      textAnchor="middle"
      style={{ fontWeight: lit ? 700 : 500, fontSize: size }}
      fill={lit ? tone.matCopper : tone.matText}
      pointerEvents="none"
    >
      {part.ref}
    </text>
  );
}

const MARK_FILL = { asked: tone.matCopper, good: 'none', bad: tone.matRust, plain: 'none', faint: 'none' } as const;
const MARK_STROKE = {
  asked: tone.matCopper,
  good: tone.matText,
  bad: tone.matRust,
  plain: tone.matText,
  faint: tone.matLine,
} as const;

/** A point with its state: asked for is ringed, bad is filled, good is an open ring. */
function Mark({ mark, x, px, onPick }: { mark: BoardMark; x: number; px: number; onPick?: (name: string) => void }) {
  const asked = mark.state === 'asked';
  return (
    <g onClick={onPick && (() => onPick(mark.name))} cursor={onPick ? 'pointer' : undefined}>
      {asked && (
        <circle
          cx={x}
          cy={mark.yMm}
          r={15 * px}
          fill="none"
          stroke={tone.matCopper}
          strokeWidth={2 * px}
          strokeDasharray={`${5 * px} ${4 * px}`}
        />
      )}
      <circle
        cx={x}
        cy={mark.yMm}
        r={(asked ? 6.5 : mark.state === 'faint' ? 3 : 5) * px}
        fill={MARK_FILL[mark.state]}
        stroke={MARK_STROKE[mark.state]}
        strokeWidth={1.6 * px}
      />
      {asked && (
        <text
          x={x}
          y={mark.yMm - 21 * px}
          textAnchor="middle"
          style={{ fontWeight: 700, fontSize: 18 * px }}
          fill={tone.matText}
        >
          {mark.name}
        </text>
      )}
    </g>
  );
}

/** From the point asked for to every pad of its net on the lit parts. */
function NetLine({
  board,
  net,
  from,
  lit,
  px,
}: {
  board: Board;
  net: string;
  from: BoardMark;
  lit: readonly string[];
  px: number;
}) {
  const ends = lit.flatMap((ref) => {
    const part = partByRef(board, ref);
    if (!part || part.side !== from.side) return [];
    const pads = padsOf(board, part).filter((p) => part.pins[p.pin] === net);
    const near = pads.sort(
      (a, b) => Math.hypot(a.xMm - from.xMm, a.yMm - from.yMm) - Math.hypot(b.xMm - from.xMm, b.yMm - from.yMm),
    );
    return near.slice(0, 1);
  });
  return (
    <>
      {ends.map((pad) => (
        <path
          key={`${pad.xMm} ${pad.yMm}`}
          d={`M${from.xMm} ${from.yMm}L${from.xMm} ${pad.yMm}L${pad.xMm} ${pad.yMm}`}
          fill="none"
          stroke={tone.matCopper}
          strokeWidth={1.6 * px}
        />
      ))}
    </>
  );
}
