'use client';

import { useEffect, useRef, useState } from 'react';
import { Box } from '@chakra-ui/react';
import { SEGMENT_WORDS, type ExpectedDraw } from '@/core/trace';
import type { WayView } from '@/core/job';
import { FILLING, face, tone } from '@/ui';

const PAD = { left: 52, right: 12, top: 10, bottom: 26 };
const BAND_H = 22;

/** Current over time, both plug ways on one axis; below each its segments by name. The healthy window is shaded. */
export function TraceDrawing({ ways, expected }: { ways: readonly WayView[]; expected: ExpectedDraw }) {
  const frame = useRef<SVGSVGElement>(null);
  const [size, setSize] = useState({ w: 736, h: 380 });
  useEffect(() => {
    const watcher = new ResizeObserver(([e]) => setSize({ w: e.contentRect.width, h: e.contentRect.height }));
    watcher.observe(frame.current!);
    return () => watcher.disconnect();
  }, []);
  const shown = ways.filter((w) => w.trace);
  const endS = Math.max(1, ...shown.map((w) => w.trace!.timesS[w.trace!.timesS.length - 1]));
  const maxA = Math.max(
    0.3,
    expected.amps[1] * 1.2,
    ...shown.map((w) => w.trace!.amps.reduce((a, b) => Math.max(a, b), 0) * 1.1),
  );
  const bottom = size.h - PAD.bottom - shown.length * BAND_H - 4;
  const x = (s: number): number => PAD.left + (s / endS) * (size.w - PAD.left - PAD.right);
  const y = (a: number): number => bottom - (a / maxA) * (bottom - PAD.top);
  const ink = { A: tone.copper, B: tone.tin } as const;
  const path = (w: WayView): string =>
    Array.from(w.trace!.timesS, (t, i) => `${x(t).toFixed(1)} ${y(w.trace!.amps[i]).toFixed(1)}`).join('L');
  const step = endS > 600 ? 120 : endS > 120 ? 30 : 10;
  return (
    <Box position="relative" flex="1" minH="240px">
      <svg
        ref={frame}
        role="img"
        aria-label="Current over time, both plug ways"
        style={{ ...FILLING, fontSize: 13, fontFamily: face.figures }}
      >
        <rect
          x={PAD.left}
          width={size.w - PAD.left - PAD.right}
          y={y(expected.amps[1])}
          height={Math.max(2, y(expected.amps[0]) - y(expected.amps[1]))}
          fill={tone.leaf}
          fillOpacity={0.13}
        />
        <text
          x={size.w - PAD.right - 4}
          y={y(expected.amps[1]) + 15}
          textAnchor="end"
          fill={tone.leaf}
          style={{ fontFamily: face.text }}
        >
          healthy window
        </text>
        {[0, 0.25, 0.5, 0.75, 1].map((share) => (
          <g key={share}>
            <line x1={PAD.left} x2={size.w - PAD.right} y1={y(share * maxA)} y2={y(share * maxA)} stroke={tone.rule} />
            <text x={PAD.left - 6} y={y(share * maxA) + 4} textAnchor="end" fill={tone.quiet}>
              {(share * maxA).toFixed(2)}
            </text>
          </g>
        ))}
        {Array.from({ length: Math.floor(endS / step) + 1 }, (_, i) => i * step).map((s) => (
          <text key={s} x={x(s)} y={size.h - 6} textAnchor="middle" fill={tone.quiet}>
            {s} s
          </text>
        ))}
        {shown.map((w) => (
          <path key={w.side} d={`M${path(w)}`} fill="none" stroke={ink[w.side]} strokeWidth={1.8} />
        ))}
        {shown.map((w, row) =>
          w.segments.map((s) => {
            const [left, right] = [x(s.startS), x(s.endS)];
            const top = bottom + 6 + row * BAND_H;
            return (
              <g key={`${w.side} ${s.startS}`}>
                <title>{`${SEGMENT_WORDS[s.name]}, ${s.volts.toFixed(2)} V ${s.amps.toFixed(2)} A`}</title>
                <rect
                  x={left + 0.5}
                  y={top}
                  width={Math.max(1, right - left - 1)}
                  height={BAND_H - 4}
                  fill={ink[w.side]}
                  fillOpacity={0.16}
                />
                {right - left > 70 && (
                  <text x={left + 5} y={top + 14} fill={tone.ink} style={{ fontFamily: face.text }}>
                    {SEGMENT_WORDS[s.name].slice(0, Math.floor((right - left) / 7))}
                  </text>
                )}
              </g>
            );
          }),
        )}
        {shown.map((w, row) => (
          <text
            key={w.side}
            x={PAD.left - 6}
            y={bottom + 20 + row * BAND_H}
            textAnchor="end"
            fill={ink[w.side]}
            style={{ fontWeight: 700 }}
          >
            {w.side}
          </text>
        ))}
      </svg>
    </Box>
  );
}
