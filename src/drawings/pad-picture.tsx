'use client';

import { Box } from '@chakra-ui/react';
import { mapPoint, type Homography, type SitePad } from '@/core/site';
import type { SeenPad } from '@/core/joints';
import { face, tone } from '@/ui';

export interface DrawnPad extends SitePad {
  readonly state: SeenPad['state'];
  readonly unclear: boolean;
}

export interface PadPictureProps {
  readonly src: string;
  readonly width: number;
  readonly height: number;
  /** From the package's frame, mm, to the picture, px. */
  readonly toPicture: Homography;
  readonly pads: readonly DrawnPad[];
  readonly bridges: readonly (readonly [string, string])[];
  readonly onPick?: (pin: string) => void;
}

const STATE_TONES = { even: tone.matLine, lifted: tone.matRust, uneven: tone.matCopper } as const;
const MARKS = { even: '', lifted: '×', uneven: '≈' } as const;

/** A picture of a cleaned site with its pads drawn over; a pad can be picked. */
export function PadPicture({ src, width, height, toPicture, pads, bridges, onPick }: PadPictureProps) {
  const px = Math.max(width, height) / 460;
  const at = new Map(pads.map((p) => [p.pin, mapPoint(toPicture, p)]));
  const troubled = pads.filter((p) => p.state !== 'even').length;
  return (
    <Box bg="mat" p="2">
      <svg
        viewBox={`0 0 ${width} ${height}`}
        style={{ width: '100%', maxHeight: '62vh', display: 'block', fontFamily: face.figures }}
        role="img"
        aria-label={`Pads in the picture: ${troubled} of ${pads.length} not level`}
      >
        <image href={src} width={width} height={height} />
        {pads.map((pad) => (
          <g
            key={pad.pin}
            onClick={onPick && (() => onPick(pad.pin))}
            style={{ cursor: onPick ? 'pointer' : undefined }}
          >
            <title>{`${pad.pin}: ${pad.state}${pad.unclear ? ', look yourself' : ''}`}</title>
            <path
              d={outline(pad, toPicture)}
              fill="transparent"
              stroke={STATE_TONES[pad.state]}
              strokeWidth={(pad.state === 'even' ? 1 : 3) * px}
              strokeDasharray={pad.state === 'lifted' ? `${5 * px} ${3 * px}` : undefined}
            />
            <PadMark at={at.get(pad.pin)!} px={px} colour={STATE_TONES[pad.state]} text={MARKS[pad.state]} />
            {pad.unclear && (
              <PadMark
                at={at.get(pad.pin)!}
                px={px}
                colour={tone.matCopper}
                text={MARKS[pad.state] === '' ? '?' : ''}
              />
            )}
          </g>
        ))}
        {bridges.map(([a, b]) => {
          const [from, to] = [at.get(a)!, at.get(b)!];
          return (
            <line
              key={`${a} ${b}`}
              x1={from.x}
              y1={from.y}
              x2={to.x}
              y2={to.y}
              stroke={tone.matRust}
              strokeWidth={4 * px}
            />
          );
        })}
      </svg>
      <Box color="matText" fontSize="13px" pt="1">
        × gone · ≈ uneven · line: bridge · ?: look yourself
      </Box>
    </Box>
  );
}

function PadMark({
  at,
  px,
  colour,
  text,
}: {
  at: { readonly x: number; readonly y: number };
  px: number;
  colour: string;
  text: string;
}) {
  if (text === '') return null;
  return (
    <text
      x={at.x}
      y={at.y + 5 * px}
      textAnchor="middle"
      fill={colour}
      stroke={tone.mat}
      strokeWidth={3 * px}
      paintOrder="stroke"
      style={{ fontSize: 16 * px, fontWeight: 700 }}
    >
      {text}
    </text>
  );
}

const ROUND_CORNERS = 24;

/** A pad's rim in the picture. */
function outline({ x, y, wMm, hMm, round }: SitePad, toPicture: Homography): string {
  const rim = round
    ? Array.from({ length: ROUND_CORNERS }, (_, k) => (2 * Math.PI * k) / ROUND_CORNERS).map((a) => [
        Math.cos(a),
        Math.sin(a),
      ])
    : [
        [-1, -1],
        [1, -1],
        [1, 1],
        [-1, 1],
      ];
  const points = rim.map(([u, v]) => mapPoint(toPicture, { x: x + (u * wMm) / 2, y: y + (v * hMm) / 2 }));
  return `M${points.map((p) => `${p.x.toFixed(1)} ${p.y.toFixed(1)}`).join('L')}Z`;
}
