/** The fault id for "nothing wrong here at all", and what suspects outside the board are listed under. */
export const OUTSIDE = 'outside';

/** What can be swapped for a known-good one without touching the board. */
export const OUTSIDE_THINGS = ['charger', 'cable', 'pack'] as const;
export type OutsideThing = (typeof OUTSIDE_THINGS)[number];

/** The fault id of something outside the board. */
export const outsideFaultId = (what: OutsideThing): string => `${OUTSIDE}/${what}`;
