import type { JobReport } from '@/core/job';

type Trace = JobReport['traces'][number];

/** One small drawing of current over time: the ways of one time on one axis. */
export interface TraceFigure {
  readonly title: string;
  readonly width: number;
  readonly height: number;
  readonly maxA: number;
  readonly endS: number;
  readonly lines: readonly { readonly way: string; readonly d: string }[];
}

const [WIDTH, HEIGHT] = [240, 70];

/** Before and now beside each other on the same scales, so that they compare at a glance. */
export function traceFigures(traces: readonly Trace[]): TraceFigure[] {
  const maxA = Math.max(0.1, ...traces.flatMap((t) => t.amps)) * 1.05;
  const endS = Math.max(1, ...traces.map((t) => t.timesS.at(-1) ?? 0));
  const path = ({ timesS, amps }: Trace): string =>
    `M${timesS.map((s, i) => `${((s / endS) * WIDTH).toFixed(1)} ${(HEIGHT * (1 - amps[i] / maxA)).toFixed(1)}`).join('L')}`;
  return (['before', 'now'] as const).flatMap((time) => {
    const shown = traces.filter((t) => t.time === time);
    return shown.length === 0
      ? []
      : [
          {
            title: time === 'before' ? 'Before' : 'Now',
            ...{ width: WIDTH, height: HEIGHT, maxA, endS },
            lines: shown.map((t) => ({ way: t.way, d: path(t) })),
          },
        ];
  });
}
