'use client';

import { useMemo } from 'react';
import { useTheme } from 'next-themes';
import { BarController, BarElement, CategoryScale, Chart, LinearScale, type ChartOptions } from 'chart.js';
import { Bar } from 'react-chartjs-2';
import { PALETTE } from '@/ui';

Chart.register(BarController, BarElement, CategoryScale, LinearScale);

const FONT = { family: 'Liberation Mono, monospace', size: 13 };
const BARS = 14;

/** How many balls have which diameter. */
export function DiameterBars({ diametersMm }: { diametersMm: readonly number[] }) {
  const { resolvedTheme } = useTheme();
  const mode = resolvedTheme === 'dark' ? 'dark' : 'light';
  const data = useMemo(() => {
    const [low, high] = [Math.min(...diametersMm), Math.max(...diametersMm)];
    const step = Math.max(0.005, (high - low) / BARS);
    const counts = Array.from({ length: BARS + 1 }, () => 0);
    for (const d of diametersMm) counts[Math.min(BARS, Math.floor((d - low) / step))] += 1;
    const used = counts.slice(0, Math.max(3, counts.findLastIndex((n) => n > 0) + 1));
    return {
      labels: used.map((_, k) => (low + (k + 0.5) * step).toFixed(3)),
      datasets: [{ data: used, backgroundColor: PALETTE.tin[mode], barPercentage: 1, categoryPercentage: 0.92 }],
    };
  }, [diametersMm, mode]);
  const options = useMemo((): ChartOptions<'bar'> => {
    const ticks = { color: PALETTE.ink[mode], font: FONT };
    return {
      ...{ animation: false, responsive: true, maintainAspectRatio: false },
      plugins: { legend: { display: false } },
      scales: {
        x: { ticks: { ...ticks, maxTicksLimit: 4, maxRotation: 0 }, grid: { display: false } },
        y: { ticks: { ...ticks, precision: 0, maxTicksLimit: 4 }, grid: { color: PALETTE.rule[mode] } },
      },
    };
  }, [mode]);
  return <Bar key={mode} data={data} options={options} role="img" aria-label="Diameters of the balls, mm" />;
}
