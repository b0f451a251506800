'use client';

import { useMemo, useRef, useState } from 'react';
import { Box, Flex, chakra } from '@chakra-ui/react';
import { zoomIdentity, type ZoomTransform } from 'd3-zoom';
import { outlineBox, type Board, type Part, type Side } from '@/core/board';
import { Mark, NetLine, type BoardMark } from './board-marks';
import { namesWithRoom } from './names-with-room';
import { PartName, isNamed } from './part-name';
import { PartShape } from './part-shape';
import { FILLING, face, tone } from '@/ui';
import { mirrored, useGrip, type BoxMm, type DrawingHand } from './use-grip';
import { useZoomedFrame } from './use-zoomed-frame';

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
  const inner = useRef<SVGGElement>(null);
  const { frame, size, view, showWhole } = useZoomedFrame(hand !== undefined);

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
            <Shields board={board} side={side} px={px} />
            <path d={outlinePath(board)} fill="none" stroke="currentColor" strokeWidth={1.4 * px} />
            {net && asked && asked.side === side && <NetLine board={board} net={net} from={asked} lit={lit} px={px} />}
            <SeenOutlines seen={seen.filter((o) => o.side === side)} px={px} />
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
      <DrawingFoot
        side={side}
        box={box}
        onSide={(s) => setPicked({ side: s, for: asked?.name })}
        onWhole={view !== zoomIdentity && view.k !== 1 ? showWhole : undefined}
      />
    </Box>
  );
}

/** Shields of a side, as lines that are cut. */
const Shields = ({ board, side, px }: { board: Board; side: Side; px: number }) =>
  board.shields
    .filter((s) => s.side === side)
    .map((s) => (
      <CutRect
        key={s.id}
        {...s}
        stroke="currentColor"
        width={1.4 * px}
        dash={`${6 * px} ${3 * px}`}
        title={`Shield ${s.id}`}
      />
    ));

const SeenOutlines = ({ seen, px }: { seen: readonly SeenOutline[]; px: number }) =>
  seen.map((outline) => (
    <CutRect
      key={`${outline.xMm} ${outline.yMm}`}
      {...outline}
      stroke={tone.matCopper}
      width={1.2 * px}
      dash={`${4 * px} ${3 * px}`}
    />
  ));

interface CutRectProps {
  readonly xMm: number;
  readonly yMm: number;
  readonly sizeMm: readonly [number, number];
  readonly stroke: string;
  readonly width: number;
  readonly dash: string;
  readonly title?: string;
}

/** A rectangle about its middle. */
const CutRect = ({ xMm, yMm, sizeMm: [w, h], stroke, width, dash, title }: CutRectProps) => (
  <rect
    x={xMm - w / 2}
    y={yMm - h / 2}
    width={w}
    height={h}
    fill="none"
    stroke={stroke}
    strokeWidth={width}
    strokeDasharray={dash}
  >
    {title && <title>{title}</title>}
  </rect>
);

interface DrawingFootProps {
  readonly side: Side;
  readonly box: BoxMm;
  readonly onSide: (side: Side) => void;
  /** Where the drawing is zoomed. */
  readonly onWhole?: () => void;
}

/** Under the drawing: which side, and how large the board is. */
function DrawingFoot({ side, box, onSide, onWhole }: DrawingFootProps) {
  return (
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
            onClick={() => onSide(s)}
          >
            {s} side
          </chakra.button>
        ))}
        {onWhole && (
          <chakra.button type="button" cursor="pointer" onClick={onWhole}>
            whole board
          </chakra.button>
        )}
      </Flex>
      <span>
        {Math.round(box.x1 - box.x0)} × {Math.round(box.y1 - box.y0)} mm
      </span>
    </Flex>
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
