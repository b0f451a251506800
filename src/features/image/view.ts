/** What the Image screen can show; each has an address of its own. */
const VIEWS = [
  { id: 'make', name: 'Read, make, write' },
  { id: 'compare', name: 'Compare' },
  { id: 'map', name: 'The map' },
] as const;
export type ImageView = (typeof VIEWS)[number]['id'];

export const imageView = (asked: string | undefined): ImageView => VIEWS.find(({ id }) => id === asked)?.id ?? 'make';

export const IMAGE_VIEWS = VIEWS.map(({ id, name }) => ({ id, name, href: `?view=${id}` }));
