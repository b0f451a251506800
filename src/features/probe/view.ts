/** What the Probe screen can show; each has an address of its own. */
export const PROBE_VIEWS = [
  { id: 'next', name: 'Next test', href: '?view=next' },
  { id: 'compare', name: 'Against good boards', href: '?view=compare' },
] as const;
export type ProbeView = (typeof PROBE_VIEWS)[number]['id'];

export const probeView = (asked: string | undefined): ProbeView =>
  PROBE_VIEWS.find(({ id }) => id === asked)?.id ?? 'next';
