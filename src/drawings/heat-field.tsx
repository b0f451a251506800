'use client';

import { useEffect, useMemo, useRef } from 'react';
import { Box, Flex } from '@chakra-ui/react';
import { contours } from 'd3-contour';
import { bodyBox, outlineBox, type Board } from '@/core/board';
import { evenField, type HeatPlan, type HeatRun, type HeatVerdict } from '@/core/heat';
import { SCALE_HIGH_C, SCALE_LOW_C, heatColour, heatGradient } from './heat-scale';
import { FILLING, face, tone } from '@/ui';

export interface HeatFieldProps {
  readonly board: Board;
  readonly run: HeatRun;
  readonly verdict: HeatVerdict;
  readonly partRef: string;
  readonly covers: readonly string[];
  /** Where the nozzle stands beside the middle of the worked part. */
  readonly offsetMm: HeatPlan['offsetMm'];
  /** Which frame is shown, one per simulated second. */
  readonly frame: number;
}

/** Samples per millimetre of board: fine enough that no cell shows. */
const SAMPLES_PER_MM = 4;
/** A tall board leaves room for the steps under it. */
const MOST_HEIGHT_PX = 262;
const LABEL_PX = 13;
/** Half the cross at which the nozzle stands. */
const NOZZLE_CROSS_PX = 7;
/** Parts named beside the worked one and its limited neighbours. */
const MOST_NEIGHBOURS = 6;

const crossAt = (x: number, y: number, half: number): string =>
  `M${x - half} ${y}H${x + half}M${x} ${y - half}V${y + half}`;

/** Temperature of the board's surface under the air, with the liquidus as a contour and the parts that matter named. */
export function HeatField({ board, run, verdict, partRef, covers, offsetMm, frame }: HeatFieldProps) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const box = outlineBox(board);
  const [w, h] = [box.x1 - box.x0, box.y1 - box.y0];
  const columns = Math.round(w * SAMPLES_PER_MM);
  const rows = Math.round(h * SAMPLES_PER_MM);
  const temps = run.frames[Math.min(frame, run.frames.length - 1)];
  const field = useMemo(() => evenField(run, temps, columns, rows), [run, temps, columns, rows]);

  useEffect(() => {
    const context = canvas.current!.getContext('2d')!;
    const image = context.createImageData(columns, rows);
    field.tempsC.forEach((t, i) => {
      if (Number.isNaN(t)) return;
      const [r, g, b] = heatColour(t);
      image.data.set([r, g, b, 255], i * 4);
    });
    context.putImageData(image, 0, 0);
  }, [field, columns, rows]);

  const molten = useMemo(() => {
    const filled = Array.from(field.tempsC, (t) => (Number.isNaN(t) ? SCALE_LOW_C : t));
    const [contour] = contours().size([columns, rows]).thresholds([verdict.reachC])(filled);
    return contour.coordinates
      .flatMap((polygon) =>
        polygon.map((ring) => `M${ring.map(([x, y]) => `${x / SAMPLES_PER_MM} ${y / SAMPLES_PER_MM}`).join('L')}Z`),
      )
      .join('');
  }, [field, columns, rows, verdict.reachC]);

  const [offsetX, offsetY] = offsetMm;
  const px = w / 352;
  const limited = verdict.neighbours.slice(0, MOST_NEIGHBOURS);
  const named = [partRef, ...limited.map((n) => n.ref), ...covers.filter((c) => !limited.some((n) => n.ref === c))];
  const worked = board.parts.find((p) => p.ref === partRef)!;
  return (
    <Box>
      <Box
        position="relative"
        bg="mat"
        w="100%"
        style={{ aspectRatio: `${w} / ${h}`, maxWidth: (MOST_HEIGHT_PX * w) / h }}
      >
        <canvas
          ref={canvas}
          width={columns}
          height={rows}
          style={{ position: 'absolute', inset: 0, width: '100%', height: '100%' }}
          role="img"
          aria-label={`Temperature of the board at ${Math.round(run.timesS[frame] ?? 0)} s`}
        />
        <svg style={{ ...FILLING, fontFamily: face.figures }} viewBox={`0 0 ${w} ${h}`} aria-hidden>
          <path d={molten} fill="none" stroke={tone.matText} strokeWidth={2 * px} />
          {board.parts
            .filter((part) => named.includes(part.ref) && part.side === worked.side)
            .map((part) => (
              <NamedPart
                key={part.ref}
                name={`${part.ref}${limited.some((n) => n.ref === part.ref && !n.holds) ? ' !' : ''}`}
                body={bodyBox(board, part)}
                origin={box}
                px={px}
                isWorked={part.ref === partRef}
                isCovered={covers.includes(part.ref)}
              />
            ))}
          {(offsetX !== 0 || offsetY !== 0) && (
            <path
              d={crossAt(worked.xMm + offsetX - box.x0, worked.yMm + offsetY - box.y0, NOZZLE_CROSS_PX * px)}
              stroke={tone.matText}
              strokeWidth={1.6 * px}
            />
          )}
        </svg>
      </Box>
      <Flex align="center" gap="2" mt="2" fontFamily="mono" fontSize="13px" color="quiet">
        {SCALE_LOW_C}
        <Box position="relative" flex="1" h="8px" style={{ background: heatGradient() }}>
          <Box
            position="absolute"
            top="-3px"
            h="14px"
            w="2px"
            bg="ink"
            style={{ left: `${((verdict.reachC - SCALE_LOW_C) / (SCALE_HIGH_C - SCALE_LOW_C)) * 100}%` }}
            title={`liquidus ${verdict.reachC} °C`}
          />
        </Box>
        {SCALE_HIGH_C} °C
      </Flex>
    </Box>
  );
}

interface NamedPartProps {
  readonly name: string;
  readonly body: ReturnType<typeof bodyBox>;
  readonly origin: { readonly x0: number; readonly y0: number };
  readonly px: number;
  readonly isWorked: boolean;
  readonly isCovered: boolean;
}

/** A part on the field: its outline, cut lines round it where it is covered, its name in or over it. */
function NamedPart({ name, body, origin, px, isWorked, isCovered }: NamedPartProps) {
  const [x, y] = [body.x0 - origin.x0, body.y0 - origin.y0];
  const [w, h] = [body.x1 - body.x0, body.y1 - body.y0];
  const inside = w > LABEL_PX * px * 2 && h > LABEL_PX * px;
  const line = { fill: 'none', stroke: tone.matText };
  return (
    <g>
      <rect x={x} y={y} width={w} height={h} {...line} strokeWidth={(isWorked ? 2.4 : 1.2) * px} />
      {isCovered && (
        <rect
          x={x - 0.6}
          y={y - 0.6}
          width={w + 1.2}
          height={h + 1.2}
          {...line}
          strokeWidth={1.2 * px}
          strokeDasharray={`${4 * px} ${3 * px}`}
        />
      )}
      <text
        x={x + w / 2}
        y={inside ? y + h / 2 + LABEL_PX * px * 0.35 : y - LABEL_PX * px * 0.4}
        textAnchor="middle"
        style={{ fontWeight: 700, fontSize: LABEL_PX * px }}
        fill={tone.matText}
        stroke={tone.mat}
        strokeWidth={2.5 * px}
        paintOrder="stroke"
      >
        {name}
      </text>
    </g>
  );
}
