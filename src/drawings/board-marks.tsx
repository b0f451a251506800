import { padsOf, partByRef, type Board, type Side } from '@/core/board';
import { tone } from '@/ui';

export interface BoardMark {
  readonly name: string;
  readonly xMm: number;
  readonly yMm: number;
  readonly side: Side;
  readonly state: 'asked' | 'good' | 'bad' | 'plain' | 'faint';
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
export function Mark({
  mark,
  x,
  px,
  onPick,
}: {
  mark: BoardMark;
  x: number;
  px: number;
  onPick?: (name: string) => void;
}) {
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
export function NetLine({
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
