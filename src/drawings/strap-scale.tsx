'use client';

import type { DecodedStrap } from '@/core/parts';
import { face, tone } from '@/ui';

export interface StrapScaleProps {
  readonly bins: number;
  readonly wanted: number;
  readonly now: DecodedStrap;
  readonly design?: DecodedStrap;
}

const W = 720;
const H = 74;
const BAR_Y = 26;
const BAR_H = 20;

/** The supply cut into its bins: where the divider reads now, and where the new one would, each with its worst corners. */
export function StrapScale({ bins, wanted, now, design }: StrapScaleProps) {
  const x = (share: number): number => share * W;
  return (
    <svg
      role="img"
      aria-label={`Bin ${wanted} of ${bins} wanted; the straps read ${(100 * now.share).toFixed(0)} % now`}
      viewBox={`-2 0 ${W + 4} ${H}`}
      width="100%"
      style={{ fontFamily: face.figures, maxHeight: H * 1.2 }}
    >
      {Array.from({ length: bins }, (_, bin) => (
        <g key={bin}>
          <rect
            x={x(bin / bins)}
            y={BAR_Y}
            width={W / bins}
            height={BAR_H}
            fill={bin === wanted ? tone.leaf : 'none'}
            fillOpacity={bin === wanted ? 0.25 : 0}
            stroke={tone.quiet}
            strokeWidth={1}
          />
          <text x={x((bin + 0.5) / bins)} y={BAR_Y + 15} textAnchor="middle" style={{ fontSize: 13 }} fill={tone.ink}>
            {bin}
          </text>
        </g>
      ))}
      <Reading
        strap={now}
        y={BAR_Y + BAR_H + 8}
        colour={tone.tin}
        words={`now ${(100 * now.share).toFixed(1)} %`}
        below
      />
      {design && (
        <Reading strap={design} y={BAR_Y - 8} colour={tone.copper} words={`new ${(100 * design.share).toFixed(1)} %`} />
      )}
    </svg>
  );
}

function Reading({
  strap,
  y,
  colour,
  words,
  below = false,
}: {
  strap: DecodedStrap;
  y: number;
  colour: string;
  words: string;
  below?: boolean;
}) {
  const middle = strap.share * W;
  const anchor = middle < 60 ? 'start' : middle > W - 60 ? 'end' : 'middle';
  return (
    <g>
      <line x1={strap.lowest * W} x2={strap.highest * W} y1={y} y2={y} stroke={colour} strokeWidth={5} />
      <line x1={middle} x2={middle} y1={y - 5} y2={y + 5} stroke={colour} strokeWidth={2.5} />
      <text
        x={middle}
        y={below ? y + 19 : y - 8}
        textAnchor={anchor}
        style={{ fontSize: 13, fontWeight: 700 }}
        fill={colour}
      >
        {words}
      </text>
    </g>
  );
}
