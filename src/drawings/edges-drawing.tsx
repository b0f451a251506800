'use client';

import { Box } from '@chakra-ui/react';
import { bodyBox, type Board, type Part } from '@/core/board';
import type { ClearingStep } from '@/core/clearing';
import { FILLING, face, tone } from '@/ui';

/** Round the part so much of the board is shown, mm. */
const ROUND_MM = 4;

/** A part with its neighbours and the order in which its edges are cleared. */
export function EdgesDrawing({
  board,
  part,
  steps,
  warned,
}: {
  board: Board;
  part: Part;
  steps: readonly ClearingStep[];
  /** Neighbours that have something to fear. */
  warned: ReadonlySet<string>;
}) {
  const box = bodyBox(board, part);
  const [x, y] = [box.x0 - ROUND_MM, box.y0 - ROUND_MM];
  const [w, h] = [box.x1 - box.x0 + 2 * ROUND_MM, box.y1 - box.y0 + 2 * ROUND_MM];
  const px = Math.max(w, h) / 340;
  const near = board.parts.filter((p) => {
    const b = bodyBox(board, p);
    return p.ref !== part.ref && p.side === part.side && b.x1 > x && b.x0 < x + w && b.y1 > y && b.y0 < y + h;
  });
  return (
    <Box bg="mat" position="relative" h="340px">
      <svg
        style={{ ...FILLING, fontFamily: face.figures }}
        viewBox={`${x} ${y} ${w} ${h}`}
        role="img"
        aria-label={
          steps.length > 0
            ? `Order of clearing round ${part.ref}: ${steps.map((s) => s.name).join(', ')}`
            : `${part.ref} with its neighbours`
        }
      >
        {near.map((p) => {
          const b = bodyBox(board, p);
          return (
            <g key={p.ref}>
              <rect
                x={b.x0}
                y={b.y0}
                width={b.x1 - b.x0}
                height={b.y1 - b.y0}
                fill={warned.has(p.ref) ? tone.matFill : 'none'}
                stroke={tone.matLine}
                strokeWidth={(warned.has(p.ref) ? 2 : 1) * px}
              />
              <text
                x={(b.x0 + b.x1) / 2}
                y={(b.y0 + b.y1) / 2 + 4 * px}
                textAnchor="middle"
                fill={tone.matText}
                style={{ fontSize: 13 * px }}
              >
                {p.ref}
              </text>
            </g>
          );
        })}
        <rect
          x={box.x0}
          y={box.y0}
          width={box.x1 - box.x0}
          height={box.y1 - box.y0}
          fill={tone.matFill}
          stroke={tone.matCopper}
          strokeWidth={2.5 * px}
        />
        {steps.map((step, k) => {
          const at = placeOf(step.name, box);
          return (
            <g key={step.name}>
              <circle cx={at.x} cy={at.y} r={11 * px} fill={tone.mat} stroke={tone.matCopper} strokeWidth={1.5 * px} />
              <text
                x={at.x}
                y={at.y + 5 * px}
                textAnchor="middle"
                fill={tone.matCopper}
                style={{ fontSize: 14 * px, fontWeight: 700 }}
              >
                {k + 1}
              </text>
            </g>
          );
        })}
        <text
          x={(box.x0 + box.x1) / 2}
          y={(box.y0 + box.y1) / 2 + 6 * px}
          textAnchor="middle"
          fill={tone.matText}
          style={{ fontSize: 20 * px, fontWeight: 700 }}
        >
          {part.ref}
        </text>
      </svg>
    </Box>
  );
}

/** The middle of an edge, or a corner. */
function placeOf(name: ClearingStep['name'], { x0, y0, x1, y1 }: ReturnType<typeof bodyBox>): { x: number; y: number } {
  return {
    x: name.includes('left') ? x0 : name.includes('right') ? x1 : (x0 + x1) / 2,
    y: name.includes('top') ? y0 : name.includes('bottom') ? y1 : (y0 + y1) / 2,
  };
}
