'use client';

import { useEffect, useRef, useState } from 'react';
import { Box } from '@chakra-ui/react';
import { METER_WORDS, type MeterCase } from '@/core/diagnose';
import { FILLING, face, tone } from '@/ui';

export interface MeterPlaneProps {
  readonly title: string;
  readonly designV: number;
  readonly cases: readonly {
    readonly meter: MeterCase;
    readonly alternatives: readonly {
      readonly means: readonly number[];
      readonly sds: readonly number[];
      readonly weight: number;
    }[];
  }[];
  readonly readings: readonly {
    readonly side: 'A' | 'B';
    readonly volts: number;
    readonly amps: number;
    readonly state: 'good' | 'bad' | 'plain';
  }[];
}

const PAD = { left: 64, right: 18, top: 18, bottom: 34 };
/** Two spreads hold about 95 % of the readings of a case. */
const SPREADS = 2;
/** Below this share an alternative is not drawn. */
const LEAST_WEIGHT = 0.35;

/** Volts to the right, amps up: where each case lies, and where the readings fell. Amps are drawn on a root scale. */
export function MeterPlane({ title, designV, cases, readings }: MeterPlaneProps) {
  const frame = useRef<SVGSVGElement>(null);
  const [size, setSize] = useState({ w: 736, h: 400 });
  useEffect(() => {
    const watcher = new ResizeObserver(([e]) => setSize({ w: e.contentRect.width, h: e.contentRect.height }));
    watcher.observe(frame.current!);
    return () => watcher.disconnect();
  }, []);
  const maxV = designV * 1.18;
  const maxA = Math.max(
    1.2,
    ...readings.map((r) => r.amps * 1.15),
    ...cases.flatMap((c) => c.alternatives.map((a) => a.means[1] + 2.4 * a.sds[1])),
  );
  const x = (volts: number): number => PAD.left + (Math.max(0, volts) / maxV) * (size.w - PAD.left - PAD.right);
  const y = (amps: number): number =>
    size.h - PAD.bottom - Math.sqrt(Math.max(0, amps) / maxA) * (size.h - PAD.top - PAD.bottom);
  const areas = cases.flatMap(({ meter, alternatives }) =>
    alternatives
      .filter((a) => a.weight >= LEAST_WEIGHT)
      .slice(0, 1)
      .map((a) => ({ meter, a })),
  );
  return (
    <Box position="relative" flex="1" minH="240px">
      <svg
        ref={frame}
        role="img"
        aria-label={`${title}: volts and amps of each case, with the readings`}
        style={{ ...FILLING, fontSize: 13, fontFamily: face.figures }}
      >
        {[0, 5, 10, 15, 20]
          .filter((v) => v <= maxV)
          .map((v) => (
            <g key={v}>
              <line x1={x(v)} x2={x(v)} y1={PAD.top} y2={size.h - PAD.bottom} stroke={tone.rule} />
              <text x={x(v)} y={size.h - 12} textAnchor="middle" fill={tone.quiet}>
                {v} V
              </text>
            </g>
          ))}
        {[0.01, 0.1, 0.5, 1, 2]
          .filter((a) => a <= maxA)
          .map((a) => (
            <g key={a}>
              <line x1={PAD.left} x2={size.w - PAD.right} y1={y(a)} y2={y(a)} stroke={tone.rule} />
              <text x={PAD.left - 8} y={y(a) + 4} textAnchor="end" fill={tone.quiet}>
                {a} A
              </text>
            </g>
          ))}
        {areas.map(({ meter, a }, i) => {
          const good = meter === 'healthy';
          const top = y(a.means[1] + SPREADS * a.sds[1]);
          const bottom = y(a.means[1] - SPREADS * a.sds[1]);
          const left = x(a.means[0] - SPREADS * a.sds[0]);
          const right = x(a.means[0] + SPREADS * a.sds[0]);
          const inner = (left + right) / 2 > size.w * 0.6;
          return (
            <g key={meter}>
              <rect
                x={left}
                y={top}
                width={Math.max(6, right - left)}
                height={Math.max(6, bottom - top)}
                rx={3}
                fill={good ? tone.leaf : tone.tin}
                fillOpacity={0.16}
                stroke={good ? tone.leaf : tone.tin}
              />
              <text
                x={inner ? left - 6 : right + 6}
                y={labelY(areas, i, y)}
                textAnchor={inner ? 'end' : 'start'}
                fill={good ? tone.leaf : tone.tinText}
                style={{ fontFamily: face.text }}
              >
                {METER_WORDS[meter]}
              </text>
            </g>
          );
        })}
        {readings.map((r) => (
          <g key={r.side}>
            <circle
              cx={x(r.volts) + (r.side === 'A' ? -3 : 3)}
              cy={y(r.amps)}
              r={7}
              fill={r.state === 'bad' ? tone.rust : tone.leaf}
              stroke={tone.paper}
              strokeWidth={1.5}
            />
            <text
              x={x(r.volts) + (r.side === 'A' ? -7 : 9)}
              y={y(r.amps) - 11}
              textAnchor="middle"
              style={{ fontWeight: 700, fontSize: '15px' }}
              fill={r.state === 'bad' ? tone.rust : tone.leaf}
            >
              {r.side}
            </text>
          </g>
        ))}
      </svg>
    </Box>
  );
}

/** Labels of cases that lie close above each other are spread by one line. */
function labelY(areas: readonly { a: { means: readonly number[] } }[], i: number, y: (amps: number) => number): number {
  const mine = areas[i].a.means;
  const column = areas
    .filter(({ a }) => Math.abs(a.means[0] - mine[0]) < 3)
    .sort((p, q) => q.a.means[1] - p.a.means[1]);
  let at = -Infinity;
  for (const { a } of column) {
    at = Math.max(at + 17, y(a.means[1]) + 4);
    if (a.means === mine) break;
  }
  return at;
}
