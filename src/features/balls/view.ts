/** What the Balls screen can show; each has an address of its own. */
const VIEWS = [
  { id: 'clear', name: 'Guard, clear, lift' },
  { id: 'site', name: 'The site' },
  { id: 'pads', name: 'Pads in a picture' },
  { id: 'picture', name: 'Balls in a picture' },
  { id: 'mix', name: 'Solder mixed' },
  { id: 'place', name: 'Placing' },
] as const;
export type BallsView = (typeof VIEWS)[number]['id'];

export const ballsView = (asked: string | undefined): BallsView => VIEWS.find(({ id }) => id === asked)?.id ?? 'site';

/** The views with their addresses; another part than the job's own stays in them. */
export const ballsViews = (part: string | undefined) =>
  VIEWS.map(({ id, name }) => ({ id, name, href: part ? `?view=${id}&part=${part}` : `?view=${id}` }));
