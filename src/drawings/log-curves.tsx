'use client';

import { useMemo } from 'react';
import { useTheme } from 'next-themes';
import { Chart, Legend, LineController, LineElement, LinearScale, PointElement, type ChartOptions } from 'chart.js';
import { Line } from 'react-chartjs-2';
import { PALETTE } from '@/ui';

Chart.register(Legend, LineController, LineElement, LinearScale, PointElement);

export interface LogCurvesProps {
  readonly curves: readonly { readonly name: string; readonly readC: readonly number[]; readonly computed?: boolean }[];
}

const FONT = { family: 'Liberation Mono, monospace', size: 13 };

/** What probes showed at whole seconds; a computed curve beside them is dashed. */
export function LogCurves({ curves }: LogCurvesProps) {
  const { resolvedTheme } = useTheme();
  const mode = resolvedTheme === 'dark' ? 'dark' : 'light';
  const data = useMemo(() => {
    const colours = [PALETTE.copper[mode], PALETTE.tin[mode], PALETTE.leaf[mode]];
    const names = [...new Set(curves.map((c) => c.name))];
    return {
      datasets: curves.map(({ name, readC, computed }) => ({
        label: computed ? `${name}, computed` : name,
        data: readC.map((y, x) => ({ x, y })),
        borderColor: colours[names.indexOf(name) % colours.length],
        borderDash: computed ? [6, 4] : [],
        borderWidth: 2,
        pointRadius: 0,
      })),
    };
  }, [curves, mode]);
  const options = useMemo((): ChartOptions<'line'> => {
    const ticks = { color: PALETTE.ink[mode], font: FONT };
    return {
      animation: false,
      responsive: true,
      maintainAspectRatio: false,
      plugins: { legend: { labels: { color: PALETTE.ink[mode], font: FONT, boxHeight: 0 } } },
      scales: {
        x: { type: 'linear', min: 0, ticks: { ...ticks, callback: (v) => `${v} s` }, grid: { display: false } },
        y: { ticks: { ...ticks, callback: (v) => `${v} °C` }, grid: { color: PALETTE.rule[mode] } },
      },
    };
  }, [mode]);
  return (
    <Line key={mode} data={data} options={options} role="img" aria-label="What the thermocouples showed over time" />
  );
}
