/** What the Balls screen can show; each has an address of its own. */
export const BALLS_VIEWS = [
  { id: 'clear', name: 'Guard, clear, lift', href: '?view=clear' },
  { id: 'site', name: 'The site', href: '?view=site' },
  { id: 'picture', name: 'Balls in a picture', href: '?view=picture' },
  { id: 'mix', name: 'Solder mixed', href: '?view=mix' },
  { id: 'place', name: 'Placing', href: '?view=place' },
] as const;
export type BallsView = (typeof BALLS_VIEWS)[number]['id'];

export const ballsView = (asked: string | undefined): BallsView =>
  BALLS_VIEWS.find(({ id }) => id === asked)?.id ?? 'site';
