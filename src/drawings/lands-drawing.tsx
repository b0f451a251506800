'use client';

import { Box } from '@chakra-ui/react';
import { landsOf, type Board, type Part } from '@/core/board';
import { FILLING, face, tone } from '@/ui';

/** The pads of a part as the board shows them, pin 1 marked; pads on ground in copper. */
export function LandsDrawing({
  board,
  part,
  lifted = [],
  touched,
  onPick,
}: {
  board: Board;
  part: Part;
  /** Pads that are off the board. */
  lifted?: readonly string[];
  /** In a walk: how each joint read, and which is next. */
  touched?: ReadonlyMap<string, 'good' | 'bad' | 'next'>;
  onPick?: (pin: string) => void;
}) {
  const pkg = board.packages[part.package];
  const pads = landsOf(pkg);
  const [w, h] = pkg.bodyMm;
  const span = Math.max(w, h) * 1.25;
  const ground = Object.keys(board.nets).find((n) => board.nets[n].role === 'ground');
  const px = span / 420;
  return (
    <Box bg="mat" display="flex" flexDirection="column" minH="300px" h="100%">
      <Box position="relative" flex="1">
        <svg
          style={{ ...FILLING, fontFamily: face.figures }}
          viewBox={`${-span / 2} ${-span / 2} ${span} ${span}`}
          role="img"
          aria-label={`Pads of ${part.ref}, ${pads.length}`}
        >
          <rect
            x={-w / 2}
            y={-h / 2}
            width={w}
            height={h}
            fill="none"
            stroke={tone.matLine}
            strokeWidth={1.2 * px}
            strokeDasharray={`${5 * px} ${4 * px}`}
          />
          {pads.map((p) => {
            const grounded = part.pins[p.pin] === ground;
            const off = lifted.includes(p.pin);
            const mark = touched?.get(p.pin);
            const plain = grounded ? tone.matCopper : part.pins[p.pin] ? tone.matFill : 'transparent';
            const walked = mark === 'good' ? tone.matText : 'transparent';
            return (
              <g
                key={p.pin}
                onClick={onPick && (() => onPick(p.pin))}
                style={{ cursor: onPick ? 'pointer' : undefined }}
              >
                <title>{`${part.ref}.${p.pin} ${part.pins[p.pin] ?? 'not connected'}${off ? ', lifted' : ''}${mark ? `, ${mark}` : ''}`}</title>
                <rect
                  x={p.xMm - p.wMm / 2}
                  y={p.yMm - p.hMm / 2}
                  width={p.wMm}
                  height={p.hMm}
                  rx={p.round ? p.wMm / 2 : 0}
                  fill={touched ? walked : plain}
                  stroke={grounded ? tone.matCopper : tone.matLine}
                  strokeWidth={1.2 * px}
                />
                {mark === 'next' && (
                  <circle
                    cx={p.xMm}
                    cy={p.yMm}
                    r={Math.max(p.wMm, p.hMm) * 0.75}
                    fill="none"
                    stroke={tone.matCopper}
                    strokeWidth={3 * px}
                  />
                )}
                {(off || mark === 'bad') && (
                  <path
                    d={`M${p.xMm - p.wMm / 2} ${p.yMm - p.hMm / 2}l${p.wMm} ${p.hMm}m0 ${-p.hMm}l${-p.wMm} ${p.hMm}`}
                    stroke={tone.matRust}
                    strokeWidth={3 * px}
                  />
                )}
              </g>
            );
          })}
          <circle cx={-w / 2 - span * 0.04} cy={-h / 2 - span * 0.04} r={4 * px} fill={tone.matText} />
          <text
            x={-w / 2 - span * 0.02}
            y={-h / 2 - span * 0.025}
            style={{ fontSize: 13 * px }}
            fill={tone.matText}
            textAnchor="start"
          >
            pin 1
          </text>
        </svg>
      </Box>
      <Box px="3" pb="2" color="matText" fontSize="13px">
        {touched
          ? 'filled: reads well · crossed: reads badly · ring: next'
          : `copper: ground · filled: used · outline: not connected${onPick ? ' · crossed: lifted' : ''}`}
      </Box>
    </Box>
  );
}
