import type { Supply } from './supply-schema';

/** The name that goes on labels, and by which two supplies are one: `C-105`, `L-12`, `D-3/U13`, `buy heron-pd-r2`. */
export function supplyId(supply: Supply): string {
  switch (supply.kind) {
    case 'chip':
      return supply.chip;
    case 'lot':
      return supply.lot;
    case 'donor':
      return `${supply.donor}/${supply.ref}`;
    case 'buy':
      return `buy ${supply.typeId}`;
    case 'none':
      return 'leave off';
  }
}

/** The same in words. */
export function supplyLabel(supply: Supply): string {
  switch (supply.kind) {
    case 'chip':
      if (supply.lot) return `${supply.chip} of lot ${supply.lot}`;
      return supply.donor ? `${supply.chip} from donor ${supply.donor}` : supply.chip;
    case 'lot':
      return `lot ${supply.lot}`;
    case 'donor':
      return `donor ${supply.donor}, ${supply.ref}`;
    case 'buy':
      return 'bought new';
    case 'none':
      return 'left off: optional on this board';
  }
}

/** @param stored the form in which supplies were written down before they were a union: their id. */
export function supplyFromId(stored: string): Supply {
  const donated = /^([A-Z]{1,3}-\d+)\/(.+)$/.exec(stored);
  if (donated) return { kind: 'donor', donor: donated[1], ref: donated[2] };
  if (/^C-\d+$/.test(stored)) return { kind: 'chip', chip: stored };
  if (/^L-\d+$/.test(stored)) return { kind: 'lot', lot: stored };
  if (stored === 'leave off') return { kind: 'none' };
  return { kind: 'buy', typeId: stored.replace(/^buy /, '') };
}
