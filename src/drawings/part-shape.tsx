'use client';

import { memo } from 'react';
import { landsOf, type Board, type Part } from '@/core/board';
import { tone } from '@/ui';

export interface PartShapeProps {
  readonly board: Board;
  readonly part: Part;
  /** Millimetres per screen pixel. */
  readonly px: number;
  readonly lit: boolean;
  /** True over a photograph: bodies are not filled. */
  readonly clear?: boolean;
  readonly onPick?: (name: string) => void;
}

/** One part in line work: body, pads that reach out of it, and a dot at pin 1 of chips. */
export const PartShape = memo(function PartShape({ board, part, px, lit, clear, onPick }: PartShapeProps) {
  const pkg = board.packages[part.package];
  const [w, h] = pkg.bodyMm;
  const chip = pkg.lands.kind !== 'two';
  const round = part.kind === 'coil';
  const flip = part.side === 'back' ? ' scale(-1 1)' : '';
  return (
    <g
      data-ref={part.ref}
      transform={`translate(${part.xMm} ${part.yMm}) rotate(${part.rotationDeg})${flip}`}
      color={lit ? tone.matCopper : clear ? tone.matText : tone.matLine}
      cursor={onPick ? 'pointer' : undefined}
      onClick={onPick && (() => onPick(part.ref))}
    >
      <title>{`${part.ref} ${part.what}`}</title>
      {chip && <Pads board={board} part={part} px={px} />}
      {round ? (
        <circle
          r={Math.min(w, h) / 2}
          fill={clear ? 'transparent' : tone.mat}
          stroke="currentColor"
          strokeWidth={1.2 * px}
        />
      ) : (
        <rect
          x={-w / 2}
          y={-h / 2}
          width={w}
          height={h}
          fill={clear ? 'transparent' : chip ? (lit ? tone.matFill : tone.mat) : 'none'}
          stroke="currentColor"
          strokeWidth={(lit ? 2 : 1.1) * px}
        />
      )}
      {chip && w > 2.5 && (
        <circle cx={-w / 2 + 0.55} cy={-h / 2 + 0.55} r={Math.max(0.18, 1.6 * px)} fill="currentColor" />
      )}
    </g>
  );
});

/** Pads under a ball array would only blacken the drawing; they are left to the Balls stage. */
function Pads({ board, part, px }: { board: Board; part: Part; px: number }) {
  const pkg = board.packages[part.package];
  if (pkg.lands.kind === 'array') return null;
  return (
    <>
      {landsOf(pkg)
        .filter((p) => p.pin !== 'EP')
        .map((p) => (
          <rect
            key={p.pin}
            x={p.xMm - p.wMm / 2}
            y={p.yMm - p.hMm / 2}
            width={p.wMm}
            height={p.hMm}
            fill="none"
            stroke="currentColor"
            strokeWidth={0.8 * px}
          />
        ))}
    </>
  );
}
