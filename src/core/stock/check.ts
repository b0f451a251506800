import { placeWords, type Place, type StockBody } from './events';
import type { Chip, StockState } from './state';

/**
 * Whether an event may happen to this stock: undefined where it may, else a sentence with what was expected and got.
 * A chip is in one place; a pair moves together; a patient's chip goes back to its job; nothing is taken that is not there.
 */
export function checkStock(state: StockState, body: StockBody): string | undefined {
  const { lots, chips } = state;
  switch (body.kind) {
    case 'lotIn':
      return isTaken(state, body.lot);
    case 'lotCounted':
      return lots.has(body.lot) ? undefined : missing('a lot', body.lot);
    case 'take': {
      const lot = lots.get(body.lot);
      if (!lot) return missing('a lot', body.lot);
      if (lot.left < 1) return `Expected a part left in lot ${lot.id}; it is empty.`;
      return isTaken(state, body.chip);
    }
    case 'donorIn':
      return isTaken(state, body.donor);
    case 'donorProven':
      return checkWhole(state, body.donor);
    case 'donorOpened':
      return checkOpening(state, body.donor, body.override);
    case 'pull':
      return checkPull(state, body);
    case 'removed':
      return isTaken(state, body.chip);
    case 'move':
      return checkMove(state, body);
    case 'judged':
    case 'reballed':
      return chips.has(body.chip) ? undefined : missing('a chip', body.chip);
    case 'moisture':
      return chips.has(body.of) || lots.has(body.of) ? undefined : missing('a lot or chip', body.of);
  }
}

const missing = (what: string, id: string): string => `Expected ${what} that exists; there is no ${id}.`;

const isTaken = ({ lots, chips, donors }: StockState, id: string): string | undefined =>
  lots.has(id) || chips.has(id) || donors.has(id) ? `Expected a new name; ${id} is in use.` : undefined;

function checkWhole({ donors }: StockState, id: string): string | undefined {
  const donor = donors.get(id);
  if (!donor) return missing('a donor', id);
  return donor.opened ? `Expected a donor that is still whole; ${id} is opened already.` : undefined;
}

function checkOpening(state: StockState, id: string, override?: string): string | undefined {
  const whole = checkWhole(state, id);
  if (whole) return whole;
  const proven = [...state.donors.get(id)!.proven.values()].some(Boolean);
  return proven || override
    ? undefined
    : `Expected donor ${id} to be proven before it is opened; nothing was seen to work on it.`;
}

function checkPull(
  state: StockState,
  { donor: id, chips, paired }: Extract<StockBody, { kind: 'pull' }>,
): string | undefined {
  const donor = state.donors.get(id);
  if (!donor) return missing('a donor', id);
  if (!donor.opened) return `Expected donor ${id} to be opened first; it is still whole.`;
  if (paired && chips.length < 2) return 'Expected a pair; got one chip.';
  if (new Set(chips.map((c) => c.chip)).size < chips.length || new Set(chips.map((c) => c.ref)).size < chips.length)
    return 'Expected each chip once; one is named twice.';
  for (const { ref, chip } of chips) {
    if (!donor.parts.some((p) => p.ref === ref))
      return `Expected a part that donor ${id} still carries; ${ref} is not on it.`;
    const taken = isTaken(state, chip);
    if (taken) return taken;
  }
  return undefined;
}

function checkMove(
  { chips, donors }: StockState,
  { chips: ids, to, override }: Extract<StockBody, { kind: 'move' }>,
): string | undefined {
  if (new Set(ids).size < ids.length) return 'Expected each chip once; one is named twice.';
  for (const id of ids) {
    const chip = chips.get(id);
    if (!chip) return missing('a chip', id);
    const refused = refuse(chip, to, override);
    if (refused) return refused;
    const left = chip.partners.filter((p) => !ids.includes(p) && !isWith(chips.get(p)!.place, to));
    if (left.length > 0 && !override)
      return `Expected ${id} to move with its partner ${left.join(', ')}; got it alone. Say why, if it must.`;
  }
  if (to.kind === 'donorTray' && !donors.has(to.donor)) return missing('a donor', to.donor);
  if (to.kind !== 'fitted') return undefined;
  if (ids.length > 1) return 'Expected one chip for one place; fit them one by one from the bag.';
  const there = [...chips.values()].find((c) => isAt(c.place, to));
  return there ? `Expected an empty place; ${there.id} is ${placeWords(to)}.` : undefined;
}

const isAt = (a: Place, b: Place): boolean =>
  a.kind === 'fitted' && b.kind === 'fitted' && a.job === b.job && a.ref === b.ref;

/** Chips of one job stay together: they are fitted and taken off one by one. */
const isWith = (partner: Place, to: Place): boolean => 'job' in partner && 'job' in to && partner.job === to.job;

/** Why one chip may not go there; `override` lifts what is a matter of care, not what cannot be. */
function refuse({ id, place, origin, condition }: Chip, to: Place, override?: string): string | undefined {
  if (place.kind === 'scrap') return `Expected a chip that is still here; ${id} was scrapped.`;
  if (place.kind === 'fitted') {
    const goesOff = to.kind === 'patientTray' && to.job === place.job;
    return goesOff
      ? undefined
      : `Expected ${id} to come off job ${place.job} into its tray first; it is ${placeWords(place)}.`;
  }
  switch (to.kind) {
    case 'drawer':
      return origin.kind === 'lot' ? undefined : `Expected a new part for the drawer; ${id} has a tray of its own.`;
    case 'donorTray':
      return origin.kind === 'donor' && origin.donor === to.donor
        ? undefined
        : `Expected ${id} in a tray of its own; it is not from donor ${to.donor}.`;
    case 'patientTray':
      return origin.kind === 'job' && origin.job === to.job
        ? undefined
        : `Expected ${id} in a tray of its own; it was not taken off job ${to.job}.`;
    case 'scrap':
      return undefined;
    case 'bag':
    case 'fitted':
      if (place.kind === 'bag' && place.job !== to.job) return `Expected a free chip; ${id} is ${placeWords(place)}.`;
      if (condition === 'dead') return `Expected a chip that works; ${id} is dead.`;
      if (origin.kind === 'job' && origin.job !== to.job && !override)
        return `Expected ${id} to go back to job ${origin.job}, where it was taken off; got job ${to.job}. Say why, if it must.`;
      return undefined;
  }
}
