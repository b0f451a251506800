/** What the practice sheet can show; each has an address of its own. */
export const PRACTICE_VIEWS = [
  ['readings', 'Readings'],
  ['story', 'The story'],
  ['parts', 'Parts and money'],
  ['business', 'Hours and quotes'],
  ['report', 'The report'],
  ['place', 'Days and money'],
] as const;
export type PracticeView = (typeof PRACTICE_VIEWS)[number][0];

export const practiceView = (asked: string | undefined): PracticeView =>
  PRACTICE_VIEWS.find(([id]) => id === asked)?.[0] ?? 'readings';
