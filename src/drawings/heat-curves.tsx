'use client';

import { useMemo } from 'react';
import { Box } from '@chakra-ui/react';
import { useTheme } from 'next-themes';
import {
  Chart,
  Filler,
  LineController,
  LineElement,
  LinearScale,
  PointElement,
  type ChartData,
  type ChartOptions,
  type Plugin,
} from 'chart.js';
import { Line } from 'react-chartjs-2';
import type { HeatCurves as Curves, HeatVerdict } from '@/core/heat';
import { PALETTE } from '@/ui';

Chart.register(Filler, LineController, LineElement, LinearScale, PointElement);

export interface HeatCurvesProps {
  readonly run: Curves;
  readonly verdict: HeatVerdict;
  readonly partRef: string;
  readonly atS: number;
  /** What the hand does at its moment. */
  readonly act?: string;
  /** A run that was set aside, drawn dashed. */
  readonly held?: { readonly run: Curves; readonly partRef: string };
  /** Coldest joint over the stations that this one may be. */
  readonly band?: { readonly lowC: Float32Array; readonly highC: Float32Array };
  /** Readings of a real run. */
  readonly logged?: { readonly ref: string; readonly timesS: readonly number[]; readonly readC: readonly number[] };
}

const FONT = { family: 'Liberation Mono, monospace', size: 13 };
const MOST_NEIGHBOURS = 2;

/** Joint temperatures over time: the worked part's coldest and hottest joint, the closest neighbours, and the limits. */
export function HeatCurves({ run, verdict, partRef, atS, act = 'lift', held, band, logged }: HeatCurvesProps) {
  const { resolvedTheme } = useTheme();
  const mode = resolvedTheme === 'dark' ? 'dark' : 'light';
  const data = useMemo(
    () => ({
      datasets: [
        ...curvesOf(run, verdict, partRef, mode),
        ...(band ? bandOf(run, band, mode) : []),
        ...(held ? heldOf(held, mode) : []),
        ...(logged ? loggedOf(logged, mode) : []),
      ],
    }),
    [run, verdict, partRef, mode, band, held, logged],
  );
  const liftS = verdict.actAtS;
  const lines = useMemo(
    () => [marker(liftS, act, PALETTE.copperText[mode]), marker(atS, '', PALETTE.quiet[mode])],
    [liftS, act, atS, mode],
  );
  const options = useMemo(() => optionsOf(run, mode), [run, mode]);
  const key = `${liftS} ${act} ${atS} ${mode}`;
  return (
    <Box flex="1" minH="0" position="relative" h="100%">
      <Line
        key={key}
        data={data}
        options={options}
        plugins={lines}
        role="img"
        aria-label={`Joint temperatures of ${partRef} and its neighbours over time`}
      />
    </Box>
  );
}

type Mode = 'light' | 'dark';
type Point = { x: number; y: number };
type Sets = ChartData<'line', Point[]>['datasets'];

const pointsOf = (timesS: ArrayLike<number>, series: ArrayLike<number>): Point[] =>
  Array.from(series, (y, i) => ({ x: timesS[i], y }));

const line = (label: string, data: Point[], colour: string, width: number, dash: number[] = []): Sets[number] => ({
  label,
  data,
  borderColor: colour,
  borderWidth: width,
  borderDash: dash,
  pointRadius: 0,
});

/** The doubt as a tinted band; what has no name is not labelled. */
function bandOf(run: Curves, { lowC, highC }: { lowC: Float32Array; highC: Float32Array }, mode: Mode): Sets {
  const tint = `${PALETTE.copper[mode]}2e`;
  return [
    { ...line('', pointsOf(run.timesS, lowC), tint, 0), fill: '+1', backgroundColor: tint },
    line('', pointsOf(run.timesS, highC), tint, 0),
  ];
}

function heldOf({ run, partRef }: { run: Curves; partRef: string }, mode: Mode): Sets {
  const worked = run.parts.find((p) => p.ref === partRef)!;
  return [line(`held ${partRef}`, pointsOf(run.timesS, worked.jointMinC), PALETTE.quiet[mode], 2, [7, 5])];
}

function loggedOf(
  { ref, timesS, readC }: { ref: string; timesS: readonly number[]; readC: readonly number[] },
  mode: Mode,
): Sets {
  return [line(`logged ${ref}`, pointsOf(timesS, readC), PALETTE.ink[mode], 1.5)];
}

function curvesOf(run: Curves, verdict: HeatVerdict, partRef: string, mode: Mode): Sets {
  const points = (series: Float32Array): Point[] => pointsOf(run.timesS, series);
  const level = (y: number): { x: number; y: number }[] => [
    { x: 0, y },
    { x: run.timesS[run.timesS.length - 1], y },
  ];
  const worked = run.parts.find((p) => p.ref === partRef)!;
  const colours = [PALETTE.tin[mode], PALETTE.leaf[mode]];
  const neighbours = verdict.neighbours.slice(0, MOST_NEIGHBOURS).flatMap((n, i) => {
    const curve = run.parts.find((p) => p.ref === n.ref)!;
    const series = n.limited === 'body' ? curve.bodyMaxC : curve.jointMaxC;
    const limit =
      i === 0 ? [line(`${n.ref} limit ${Math.round(n.limitC)}`, level(n.limitC), PALETTE.rust[mode], 1.2, [2, 3])] : [];
    return [line(n.ref, points(series), colours[i], 2), ...limit];
  });
  return [
    line(
      `${verdict.ownLimitC === null ? 'liquidus' : 'wanted'} ${Math.round(verdict.reachC)}`,
      level(verdict.reachC),
      PALETTE.ink[mode],
      1.2,
      [6, 4],
    ),
    ...(verdict.ownLimitC === null
      ? []
      : [
          line(
            `solder limit ${Math.round(verdict.ownLimitC)}`,
            level(verdict.ownLimitC),
            PALETTE.rust[mode],
            1.2,
            [6, 4],
          ),
        ]),
    line(`${partRef} hottest`, points(worked.jointMaxC), PALETTE.copper[mode], 1),
    line(`${partRef} coldest joint`, points(worked.jointMinC), PALETTE.copper[mode], 3),
    ...neighbours,
  ];
}

function optionsOf(run: Curves, mode: Mode): ChartOptions<'line'> {
  const axis = { ticks: { color: PALETTE.quiet[mode], font: FONT }, border: { display: false } };
  return {
    animation: false,
    responsive: true,
    maintainAspectRatio: false,
    layout: { padding: { top: 22, right: 6 } },
    plugins: { legend: { display: false }, tooltip: { enabled: false } },
    scales: {
      x: {
        type: 'linear',
        min: 0,
        max: run.timesS[run.timesS.length - 1],
        grid: { display: false },
        ...axis,
        ticks: { ...axis.ticks, includeBounds: false, callback: (v) => `${v} s` },
      },
      y: { type: 'linear', min: 0, suggestedMax: 260, grid: { color: PALETTE.rule[mode] }, ...axis },
    },
  };
}

/** A vertical line at a time, and at the ends of the curves their names. */
function marker(timeS: number | null, label: string, colour: string): Plugin<'line'> {
  return {
    id: `marker ${label}`,
    afterDraw(chart) {
      const { ctx, scales, chartArea } = chart;
      if (timeS !== null) {
        const x = scales.x.getPixelForValue(timeS);
        ctx.save();
        ctx.strokeStyle = colour;
        ctx.lineWidth = label ? 2 : 1;
        ctx.beginPath();
        ctx.moveTo(x, chartArea.top);
        ctx.lineTo(x, chartArea.bottom);
        ctx.stroke();
        ctx.font = `700 13px ${FONT.family}`;
        ctx.fillStyle = colour;
        if (label) ctx.fillText(`${label} ${timeS} s`, Math.min(x + 5, chartArea.right - 80), chartArea.top - 6);
        ctx.restore();
      }
      if (label) nameCurves(chart);
    },
  };
}

/** Level lines are named at the left, above them; curves at their highest point. */
function nameCurves(chart: Chart): void {
  const { ctx, scales, chartArea } = chart;
  ctx.save();
  ctx.font = `700 13px ${FONT.family}`;
  const taken = { left: [] as number[], right: [] as number[] };
  for (const set of chart.data.datasets) {
    const data = set.data as { x: number; y: number }[];
    if (!set.label || set.label.endsWith('hottest')) continue;
    const level = data.length === 2;
    const top = level ? data[0] : data.reduce((a, b) => (b.y > a.y ? b : a));
    const side = level ? taken.left : taken.right;
    let y = scales.y.getPixelForValue(top.y) - 5;
    while (side.some((t) => Math.abs(t - y) < 15)) y += 16;
    side.push(y);
    ctx.fillStyle = String(set.borderColor);
    ctx.textAlign = level ? 'left' : 'right';
    ctx.fillText(set.label ?? '', level ? chartArea.left + 4 : chartArea.right, y);
  }
  ctx.restore();
}
