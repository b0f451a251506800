import type { Board, Part } from '@/core/board';
import { tone } from '@/ui';
import type { BoardMark } from './board-marks';

const BIG_MM2 = 5;

/** Names are shown where they help: large parts always, small ones when lit, asked for, or when there is room. */
export function isNamed(
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

/** The name of a part: in its body where there is room, else above it. */
export function PartName({ board, part, size, lit, marked, x }: PartNameProps) {
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
