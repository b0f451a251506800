import type { Board } from '@/core/board';
import { bakeWays, hoursWords, moistureState, type MoistureMark, type PartType } from '@/core/parts';
import { originLabel, placeWords, type Chip, type Place, type StockState } from '@/core/stock';
import type { ChipRow, DonorRow, LotRow, MoistureView, Tray } from './view';

type Types = ReadonlyMap<string, PartType>;

const whatOf = (types: Types, typeId: string): string => types.get(typeId)?.what ?? 'type not in the library';

function moistureView(
  type: PartType | undefined,
  marks: readonly MoistureMark[] | undefined,
  nowH: number,
): MoistureView | undefined {
  if (!type?.moisture) return undefined;
  const { moisture: level, thicknessMm } = type;
  const ways = thicknessMm === undefined ? [] : bakeWays(level, thicknessMm);
  const [quickest] = ways;
  const bakeWords = quickest ? `${hoursWords(quickest.hours)} at ${quickest.tempC} °C` : 'as the label says';
  return { ...moistureState(level, marks, nowH), level, bakeWords, bakeWays: ways };
}

/** The lots, those that are empty last. */
export const lotRows = (state: StockState, types: Types, nowH: number): LotRow[] =>
  [...state.lots.values()]
    .map(({ id, typeId, left, unitPrice, marks }) => ({
      id,
      typeId,
      left,
      unitPrice,
      what: whatOf(types, typeId),
      moisture: moistureView(types.get(typeId), marks, nowH),
    }))
    .sort((a, b) => Number(a.left === 0) - Number(b.left === 0));

/** Loose chips by where they lie; fitted and scrapped ones are gone from the bench. */
export function trays(state: StockState, types: Types, nowH: number): Tray[] {
  const byPlace = new Map<string, { place: Place; chips: ChipRow[] }>();
  for (const chip of state.chips.values()) {
    if (chip.place.kind === 'fitted' || chip.place.kind === 'scrap') continue;
    const key = placeWords(chip.place);
    const tray = byPlace.get(key) ?? { place: chip.place, chips: [] };
    tray.chips.push(chipRow(chip, types, nowH));
    byPlace.set(key, tray);
  }
  return [...byPlace].map(([id, { place, chips }]) => ({
    id,
    title: id.charAt(0).toUpperCase() + id.slice(1),
    kind: KIND[place.kind as keyof typeof KIND],
    chips,
  }));
}

const KIND = { drawer: 'drawer', donorTray: 'donor', patientTray: 'patient', bag: 'bag' } as const;

function chipRow(chip: Chip, types: Types, nowH: number): ChipRow {
  const { id, typeId, condition, reballed, parted, partners, marks } = chip;
  return {
    id,
    typeId,
    condition,
    reballed,
    parted,
    partners,
    what: whatOf(types, typeId),
    origin: originLabel(chip),
    moisture: moistureView(types.get(typeId), marks, nowH),
  };
}

/** The donors, whole ones first. */
export const donorRows = (state: StockState, boards: ReadonlyMap<string, Board>): DonorRow[] =>
  [...state.donors.values()]
    .map(({ id, boardId, price, note, opened, parts, proven }) => {
      const board = boards.get(boardId);
      return {
        id,
        board: board ? `${board.device}, ${board.name} ${board.revision}` : boardId,
        price,
        note,
        opened,
        parts,
        proven: [...proven].map(([fn, worked]) => ({
          fn,
          worked,
          what: board?.functions.find((f) => f.id === fn)?.what ?? fn,
        })),
      };
    })
    .sort((a, b) => Number(a.opened) - Number(b.opened));
