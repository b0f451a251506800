import type { StockBody } from './events';

/** The jobs that stock events speak of, once each. */
export function jobsNamedBy(bodies: readonly StockBody[]): number[] {
  const jobs = bodies.flatMap((body) => {
    if (body.kind === 'move') return 'job' in body.to ? [body.to.job] : [];
    return 'job' in body && typeof body.job === 'number' ? [body.job] : [];
  });
  return [...new Set(jobs)];
}
