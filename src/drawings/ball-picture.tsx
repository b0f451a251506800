'use client';

import { Box } from '@chakra-ui/react';
import { mapPoint, type Homography, type Site } from '@/core/site';
import { face, tone } from '@/ui';

export interface DrawnSite extends Site {
  readonly pin: string;
  readonly state: 'good' | 'missing' | 'small' | 'large' | 'beside';
  readonly diameterMm: number;
  readonly unclear: boolean;
  readonly byHand: boolean;
}

export interface BallPictureProps {
  readonly src: string;
  readonly width: number;
  readonly height: number;
  readonly toPicture: Homography;
  readonly pitchMm: number;
  readonly sites: readonly DrawnSite[];
  readonly bridges: readonly (readonly [number, number])[];
  /** In the pattern's frame. */
  readonly solderDebris: readonly { readonly x: number; readonly y: number }[];
  readonly onPick?: (pin: string) => void;
}

const STATE_TONES = {
  good: tone.matLine,
  missing: tone.matRust,
  small: tone.matCopper,
  large: tone.matCopper,
  beside: tone.matCopper,
} as const;

/** A picture with what was seen in it drawn over; a site can be picked. */
export function BallPicture({
  src,
  width,
  height,
  toPicture,
  pitchMm,
  sites,
  bridges,
  solderDebris,
  onPick,
}: BallPictureProps) {
  const pitchPx = Math.sqrt(Math.abs(toPicture[0] * toPicture[4] - toPicture[1] * toPicture[3]));
  const px = Math.max(width, height) / 460;
  const mark = Math.max(13 * px, 0.42 * pitchPx);
  const at = sites.map((s) => mapPoint(toPicture, s));
  return (
    <Box bg="mat" position="relative" p="2">
      <svg
        viewBox={`0 0 ${width} ${height}`}
        style={{ width: '100%', maxHeight: '62vh', display: 'block', fontFamily: face.figures }}
        role="img"
        aria-label={`Balls in the picture: ${sites.filter((s) => s.state !== 'good').length} of ${sites.length} not good`}
      >
        <image href={src} width={width} height={height} />
        {bridges.map(([a, b]) => (
          <line
            key={`${a} ${b}`}
            x1={at[a].x}
            y1={at[a].y}
            x2={at[b].x}
            y2={at[b].y}
            stroke={tone.matRust}
            strokeWidth={4 * px}
          />
        ))}
        {sites.map((site, i) => {
          const r = site.state === 'missing' ? 0.36 * pitchPx : (site.diameterMm / pitchMm / 2) * pitchPx;
          const colour = STATE_TONES[site.state];
          return (
            <g
              key={site.pin}
              onClick={onPick && (() => onPick(site.pin))}
              style={{ cursor: onPick ? 'pointer' : undefined }}
            >
              <title>{`${site.pin}: ${site.state}${site.unclear ? ', look yourself' : ''}, ${site.diameterMm.toFixed(3)} mm`}</title>
              <circle
                cx={at[i].x}
                cy={at[i].y}
                r={r}
                fill="transparent"
                stroke={colour}
                strokeWidth={(site.state === 'good' ? 1 : 3) * px}
                strokeDasharray={site.state === 'missing' ? `${5 * px} ${3 * px}` : undefined}
              />
              {site.state !== 'good' && (
                <text
                  x={at[i].x}
                  y={at[i].y + 0.35 * mark}
                  textAnchor="middle"
                  fill={colour}
                  stroke={tone.mat}
                  strokeWidth={3 * px}
                  paintOrder="stroke"
                  style={{ fontSize: mark, fontWeight: 700 }}
                >
                  {MARKS[site.state]}
                </text>
              )}
              {site.unclear && !site.byHand && (
                <text
                  x={at[i].x + r}
                  y={at[i].y - r * 0.6}
                  fill={tone.matCopper}
                  stroke={tone.mat}
                  strokeWidth={3 * px}
                  paintOrder="stroke"
                  style={{ fontSize: mark, fontWeight: 700 }}
                >
                  ?
                </text>
              )}
            </g>
          );
        })}
        {solderDebris.map((crumb, i) => {
          const p = mapPoint(toPicture, crumb);
          const d = 0.22 * pitchPx;
          return (
            <path
              key={i}
              d={`M${p.x} ${p.y - d}L${p.x + d} ${p.y}L${p.x} ${p.y + d}L${p.x - d} ${p.y}Z`}
              fill="none"
              stroke={tone.matRust}
              strokeWidth={2 * px}
            />
          );
        })}
      </svg>
      <Box color="matText" fontSize="13px" pt="1">
        × missing · − small · + large · ↔ beside · line: bridge · diamond: a bit that does not belong · ?: look yourself
      </Box>
    </Box>
  );
}

const MARKS = { good: '', missing: '×', small: '−', large: '+', beside: '↔' } as const;
