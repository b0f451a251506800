/** What the Decide screen can show; each has an address of its own. */
export const DECIDE_VIEWS = [
  { id: 'route', name: 'What to do', href: '?view=route' },
  { id: 'chip', name: 'Which chip', href: '?view=chip' },
  { id: 'quote', name: 'Quote', href: '?view=quote' },
  { id: 'straps', name: 'Straps', href: '?view=straps' },
] as const;
export type DecideView = (typeof DECIDE_VIEWS)[number]['id'];

/** With the decision to replace a part taken, the next question is which chip. */
export const decideView = (asked: string | undefined, decided: boolean): DecideView =>
  DECIDE_VIEWS.find(({ id }) => id === asked)?.id ?? (decided ? 'chip' : 'route');
