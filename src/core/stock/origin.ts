import type { Chip } from './state';

/** Where a chip came from. */
export function originLabel({ origin }: Pick<Chip, 'origin'>): string {
  switch (origin.kind) {
    case 'lot':
      return `lot ${origin.lot}`;
    case 'donor':
      return `donor ${origin.donor}, ${origin.ref}`;
    case 'job':
      return `taken off job ${origin.job}, ${origin.ref}`;
  }
}
