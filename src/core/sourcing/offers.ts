import type { JobNumber, PartRef } from '../identities';
import type { Board } from '../board';
import type { Candidate, PartType } from '../parts';
import { supplyId, type Chip, type Donor, type StockState, type Supply } from '../stock';

/** One way to come by a chip. */
export interface Offer {
  readonly supply: Supply;
  /** {@link supplyId} of it. */
  readonly id: string;
  readonly summary: string;
  readonly candidate: Candidate;
  /** How many there are; undefined: as many as are bought. */
  readonly count?: number;
  /** What taking one costs, in the shop's money; opening a donor is counted for itself. */
  readonly price: number;
  /** Bench minutes to get it off a donor. */
  readonly minutes: number;
  readonly days: number;
  /** Functions seen to work, or not, on the board it sits on. */
  readonly proven?: ReadonlyMap<string, boolean>;
}

/** What is known beside the place itself. */
export interface Supplies {
  readonly types: readonly PartType[];
  readonly stock: StockState;
  readonly boards: ReadonlyMap<string, Board>;
}

/** Taking a chip off a donor and cleaning it. Engineering estimate. */
const PULL_MINUTES = 12;

/** Every chip of a kind that could be had: loose ones, lots, donors, and new ones to buy. A patient's chip only for its job. */
export function offersOf(kind: PartType['kind'], supplies: Supplies, job?: JobNumber): Offer[] {
  const types = new Map(supplies.types.filter((t) => t.kind === kind).map((t) => [t.id, t]));
  return [
    ...chipOffers(types, supplies, job),
    ...lotOffers(types, supplies),
    ...donorOffers(types, supplies),
    ...[...types.values()].flatMap(buyOffer),
  ];
}

type Types = ReadonlyMap<string, PartType>;

const offer = (supply: Supply, facts: Omit<Offer, 'supply' | 'id'>): Offer => ({
  supply,
  id: supplyId(supply),
  ...facts,
});

function chipOffers(types: Types, { stock, boards }: Supplies, job: JobNumber | undefined): Offer[] {
  return [...stock.chips.values()].flatMap((chip): Offer[] => {
    const type = types.get(chip.typeId);
    if (!type || chip.condition !== 'sound' || !isFree(chip, job) || isHeldByPartner(chip, type)) return [];
    const { origin } = chip;
    const price = origin.kind === 'lot' ? (stock.lots.get(origin.lot)?.unitPrice ?? 0) : 0;
    const from =
      origin.kind === 'donor'
        ? { boardId: origin.boardId, position: positionOf(boards, origin.boardId, origin.ref) }
        : undefined;
    const candidate = { type, from, marks: chip.marks, withPartner: chip.partners.length > 0 };
    const supply: Supply = {
      ...{ kind: 'chip', chip: chip.id },
      ...(origin.kind === 'lot' && { lot: origin.lot }),
      ...(origin.kind === 'donor' && { donor: origin.donor }),
    };
    return [offer(supply, { summary: originWords(chip), candidate, count: 1, price, minutes: 0, days: 0 })];
  });
}

/** In a tray where anybody may take it, or waiting for this very job. */
const isFree = ({ place }: Chip, job: JobNumber | undefined): boolean =>
  place.kind === 'drawer' ||
  place.kind === 'donorTray' ||
  ((place.kind === 'patientTray' || place.kind === 'bag') && place.job === job);

/** A memory that belongs to a controller goes where that goes, not for itself. */
const isHeldByPartner = (chip: Chip, type: PartType): boolean => chip.partners.length > 0 && !type.partner;

function originWords({ id, origin, reballed }: Chip): string {
  const balls = reballed ? ', reballed' : '';
  switch (origin.kind) {
    case 'lot':
      return `${id} of lot ${origin.lot}${balls}`;
    case 'donor':
      return `${id} from ${origin.donor}, ${origin.ref}${balls}`;
    case 'job':
      return `${id}, off this job${balls}`;
  }
}

function lotOffers(types: Types, { stock }: Supplies): Offer[] {
  return [...stock.lots.values()].flatMap((lot): Offer[] => {
    const type = types.get(lot.typeId);
    if (!type || lot.left === 0) return [];
    const candidate = { type, marks: lot.marks };
    const { id, left: count, unitPrice: price } = lot;
    const summary = `lot ${id}, ${count} left`;
    return [offer({ kind: 'lot', lot: id }, { summary, candidate, count, price, minutes: 0, days: 0 })];
  });
}

function donorOffers(types: Types, supplies: Supplies): Offer[] {
  const { stock, boards } = supplies;
  return [...stock.donors.values()].flatMap((donor) =>
    donor.parts.flatMap((part): Offer[] => {
      const type = types.get(part.typeId);
      if (!type || !part.sound || isClaimed(donor, part.ref, supplies)) return [];
      const from = { boardId: donor.boardId, position: positionOf(boards, donor.boardId, part.ref) };
      return [
        offer(
          { kind: 'donor', donor: donor.id, ref: part.ref },
          {
            summary: `donor ${donor.id}, ${part.ref}`,
            candidate: { type, from, withPartner: carriesPartner(donor, part.ref, type, boards) },
            count: 1,
            price: 0,
            minutes: PULL_MINUTES,
            days: 0,
            proven: donor.proven,
          },
        ),
      ];
    }),
  );
}

/** The paired memory is still on the donor, at the place that this chip loads from. */
function carriesPartner(donor: Donor, ref: PartRef, type: PartType, boards: Supplies['boards']): boolean {
  const image = boards.get(donor.boardId)?.slots.find((s) => s.ref === ref)?.image;
  return donor.parts.some((p) => p.ref === image && p.typeId === type.partner && p.sound);
}

/** A memory on a donor whose paired controller is there too belongs to that. */
function isClaimed(donor: Donor, ref: PartRef, { types, boards }: Supplies): boolean {
  const board = boards.get(donor.boardId);
  const own = donor.parts.find((p) => p.ref === ref)!.typeId;
  return donor.parts.some((p) => {
    const loadsFromIt = board?.slots.find((s) => s.ref === p.ref)?.image === ref;
    return loadsFromIt && p.sound && types.find((t) => t.id === p.typeId)?.partner === own;
  });
}

function buyOffer(type: PartType): Offer[] {
  if (type.price === undefined) return [];
  const days = type.leadDays ?? 0;
  return [
    offer(
      { kind: 'buy', typeId: type.id },
      {
        summary: days > 0 ? `buy new, ${days} days` : 'buy new',
        candidate: { type, marks: [] },
        price: type.price,
        minutes: 0,
        days,
      },
    ),
  ];
}

const positionOf = (boards: Supplies['boards'], boardId: string, ref: PartRef): string | undefined =>
  boards.get(boardId)?.slots.find((s) => s.ref === ref)?.position;
