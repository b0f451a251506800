'use client';

import { useMemo } from 'react';
import { useTheme } from 'next-themes';
import {
  Chart,
  Legend,
  LineController,
  LineElement,
  LinearScale,
  PointElement,
  type ChartData,
  type ChartOptions,
} from 'chart.js';
import { Line } from 'react-chartjs-2';
import { PALETTE } from '@/ui';

Chart.register(Legend, LineController, LineElement, LinearScale, PointElement);

export interface TwoHistoriesProps {
  readonly timesS: readonly number[];
  readonly theirsC: readonly number[];
  readonly oursC: readonly number[];
  readonly theirs: string;
  readonly ours: string;
  readonly liquidusC: number;
}

const FONT = { family: 'Liberation Mono, monospace', size: 13 };

/** The joint's history on their station and on ours, with the liquidus as a line. */
export function TwoHistories({ timesS, theirsC, oursC, theirs, ours, liquidusC }: TwoHistoriesProps) {
  const { resolvedTheme } = useTheme();
  const mode = resolvedTheme === 'dark' ? 'dark' : 'light';
  const data = useMemo((): ChartData<'line', { x: number; y: number }[]> => {
    const points = (curve: readonly number[]) => curve.map((y, i) => ({ x: timesS[i], y }));
    const line = { pointRadius: 0, borderWidth: 2.5 };
    return {
      datasets: [
        { ...line, label: theirs, data: points(theirsC), borderColor: PALETTE.tin[mode], borderDash: [6, 4] },
        { ...line, label: ours, data: points(oursC), borderColor: PALETTE.copper[mode] },
        {
          ...line,
          label: `liquidus ${liquidusC} °C`,
          data: points(timesS.map(() => liquidusC)),
          borderColor: PALETTE.quiet[mode],
          borderWidth: 1,
          borderDash: [2, 3],
        },
      ],
    };
  }, [timesS, theirsC, oursC, theirs, ours, liquidusC, mode]);
  const options = useMemo((): ChartOptions<'line'> => {
    const ticks = { color: PALETTE.ink[mode], font: FONT };
    const grid = { color: PALETTE.rule[mode] };
    return {
      animation: false,
      responsive: true,
      maintainAspectRatio: false,
      plugins: { legend: { labels: { color: PALETTE.ink[mode], font: FONT, boxHeight: 0 } } },
      scales: {
        x: { type: 'linear', min: 0, ticks: { ...ticks, callback: (v) => `${v} s` }, grid: { display: false } },
        y: { ticks: { ...ticks, callback: (v) => `${v} °C` }, grid },
      },
    };
  }, [mode]);
  return (
    <Line
      key={mode}
      data={data}
      options={options}
      role="img"
      aria-label={`Joint temperature over time: ${theirs} against ${ours}`}
    />
  );
}
