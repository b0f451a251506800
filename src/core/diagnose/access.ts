/** How far the device must be opened for a test. */
export type Access = 'closed' | 'open' | 'out';

const DEPTH: readonly Access[] = ['closed', 'open', 'out'];

/** Minutes to get from closed to open, and from open to board out. Engineering estimates. */
const OPEN_MINUTES: Readonly<Record<Access, number>> = { closed: 0, open: 6, out: 14 };

/** Minutes to get from one state to a further opened one; none where it is open as far already. */
export const openingMinutes = (from: Access, to: Access = 'out'): number =>
  Math.max(0, OPEN_MINUTES[to] - OPEN_MINUTES[from]);

/** The further opened of two states. */
export const deeper = (a: Access, b: Access): Access => (DEPTH.indexOf(b) > DEPTH.indexOf(a) ? b : a);
