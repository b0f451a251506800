import type { ChipId, DonorId, JobNumber, LotId, PartRef } from '../identities';
import type { MoistureMark } from '../parts';
import type { Condition, Place, StockBody, StockEvent } from './events';

export interface Lot {
  readonly id: LotId;
  readonly typeId: string;
  readonly unitPrice: number;
  left: number;
  /** undefined: nobody knows how long it lay open. */
  marks: MoistureMark[] | undefined;
}

export type Origin =
  | { readonly kind: 'lot'; readonly lot: LotId }
  | { readonly kind: 'donor'; readonly donor: DonorId; readonly boardId: string; readonly ref: PartRef }
  | { readonly kind: 'job'; readonly job: JobNumber; readonly ref: PartRef };

/** One physical part. */
export interface Chip {
  readonly id: ChipId;
  readonly typeId: string;
  readonly origin: Origin;
  place: Place;
  condition: Condition;
  reballed: boolean;
  marks: MoistureMark[] | undefined;
  /** The chips it must travel with. */
  partners: readonly ChipId[];
  /** Why it was parted from them, where somebody did. */
  parted?: string;
}

export interface Donor {
  readonly id: DonorId;
  readonly boardId: string;
  readonly price: number;
  readonly note: string;
  /** What it still carries. */
  parts: { readonly ref: PartRef; readonly typeId: string; readonly sound: boolean }[];
  readonly proven: Map<string, boolean>;
  opened: boolean;
}

/** All lots, chips and donors, folded from the events; changed only by {@link applyStock}. */
export interface StockState {
  readonly lots: Map<LotId, Lot>;
  readonly chips: Map<ChipId, Chip>;
  readonly donors: Map<DonorId, Donor>;
}

export const emptyStock = (): StockState => ({ lots: new Map(), chips: new Map(), donors: new Map() });

const HOUR_MS = 3_600_000;
export const hoursOf = (at: string): number => Date.parse(at) / HOUR_MS;

/** Applies one event that was found to hold ({@link checkStock}). */
export function applyStock({ lots, chips, donors }: StockState, body: StockBody, at: string): void {
  switch (body.kind) {
    case 'lotIn':
      lots.set(body.lot, {
        id: body.lot,
        typeId: body.typeId,
        unitPrice: body.unitPrice,
        left: body.count,
        marks: body.sealed ? [] : undefined,
      });
      return;
    case 'lotCounted':
      lots.get(body.lot)!.left = body.count;
      return;
    case 'take': {
      const lot = lots.get(body.lot)!;
      lot.left -= 1;
      addChip(
        chips,
        body.chip,
        lot.typeId,
        { kind: 'lot', lot: lot.id },
        { kind: 'drawer' },
        lot.marks && [...lot.marks],
      );
      return;
    }
    case 'donorIn':
      donors.set(body.donor, {
        id: body.donor,
        boardId: body.boardId,
        price: body.price,
        note: body.note,
        parts: body.parts,
        proven: new Map(),
        opened: false,
      });
      return;
    case 'donorProven':
      donors.get(body.donor)!.proven.set(body.fn, body.worked);
      return;
    case 'donorOpened':
      donors.get(body.donor)!.opened = true;
      return;
    case 'pull':
      pull(chips, donors.get(body.donor)!, body);
      return;
    case 'removed':
      addChip(
        chips,
        body.chip,
        body.typeId,
        { kind: 'job', job: body.job, ref: body.ref },
        { kind: 'patientTray', job: body.job },
        undefined,
      ).condition = body.condition;
      return;
    case 'move':
      for (const id of body.chips) {
        const chip = chips.get(id)!;
        chip.place = body.to;
        if (body.override && chip.partners.some((p) => !body.chips.includes(p))) part(chips, chip, body.override);
      }
      return;
    case 'judged':
      chips.get(body.chip)!.condition = body.condition;
      return;
    case 'reballed':
      chips.get(body.chip)!.reballed = true;
      return;
    case 'moisture': {
      const thing = lots.get(body.of) ?? chips.get(body.of)!;
      // A bake makes a known history out of an unknown one.
      if (thing.marks || body.what === 'baked') (thing.marks ??= []).push({ atH: hoursOf(at), what: body.what });
      return;
    }
  }
}

function addChip(
  chips: Map<ChipId, Chip>,
  id: string,
  typeId: string,
  origin: Origin,
  place: Place,
  marks: MoistureMark[] | undefined,
): Chip {
  const chip: Chip = { id, typeId, origin, place, condition: 'sound', reballed: false, marks, partners: [] };
  chips.set(id, chip);
  return chip;
}

function pull(chips: Map<ChipId, Chip>, donor: Donor, body: Extract<StockBody, { kind: 'pull' }>): void {
  const ids = body.chips.map((c) => c.chip);
  for (const { ref, chip: id } of body.chips) {
    const { typeId, sound } = donor.parts.find((p) => p.ref === ref)!;
    const origin: Origin = { kind: 'donor', donor: donor.id, boardId: donor.boardId, ref };
    const chip = addChip(chips, id, typeId, origin, { kind: 'donorTray', donor: donor.id }, undefined);
    if (!sound) chip.condition = 'suspect';
    if (body.paired) chip.partners = ids.filter((other) => other !== id);
  }
  donor.parts = donor.parts.filter((p) => !body.chips.some((c) => c.ref === p.ref));
}

/** Whoever parts a pair does it for good: no chip of it is held to the others any more. */
function part(chips: Map<ChipId, Chip>, chip: Chip, why: string): void {
  for (const id of [chip.id, ...chip.partners]) {
    const other = chips.get(id)!;
    other.parted = why;
    if (id !== chip.id) other.partners = other.partners.filter((p) => p !== chip.id);
  }
  chip.partners = [];
}

/** The stock after these events, oldest first. They were checked when they were stored. */
export function foldStock(events: readonly StockEvent[]): StockState {
  const state = emptyStock();
  for (const { body, at } of events) applyStock(state, body, at);
  return state;
}
