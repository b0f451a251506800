import type { BakeWay, MoistureState } from '@/core/parts';
import type { Chip, Reorder } from '@/core/stock';

/** What the Stock sheet can show; each has an address of its own. */
export const STOCK_VIEWS = [
  { id: 'shelf', name: 'Shelf and trays', href: '?view=shelf' },
  { id: 'donors', name: 'Donors', href: '?view=donors' },
  { id: 'plan', name: 'Plan for the queue', href: '?view=plan' },
] as const;
export type StockViewId = (typeof STOCK_VIEWS)[number]['id'];

export const stockView = (asked: string | undefined): StockViewId =>
  STOCK_VIEWS.find(({ id }) => id === asked)?.id ?? 'shelf';

export interface LotRow {
  readonly id: string;
  readonly typeId: string;
  readonly what: string;
  readonly left: number;
  readonly unitPrice: number;
  readonly moisture?: MoistureView;
}

/** The moisture clock of a lot or chip, and how it is baked. */
export interface MoistureView extends MoistureState {
  readonly level: string;
  readonly bakeWords: string;
  /** Ways to bake it, the quickest first; empty where the table does not reach. */
  readonly bakeWays: readonly BakeWay[];
}

export interface ChipRow extends Pick<Chip, 'id' | 'typeId' | 'condition' | 'reballed' | 'parted'> {
  readonly what: string;
  readonly origin: string;
  readonly partners: readonly string[];
  readonly moisture?: MoistureView;
}

/** One tray, drawer or bag with what lies in it; donors' and patients' chips are never in one. */
export interface Tray {
  readonly id: string;
  readonly title: string;
  readonly kind: 'drawer' | 'donor' | 'patient' | 'bag';
  readonly chips: readonly ChipRow[];
}

export interface DonorRow {
  readonly id: string;
  readonly board: string;
  readonly price: number;
  readonly note: string;
  readonly opened: boolean;
  readonly parts: readonly { readonly ref: string; readonly typeId: string; readonly sound: boolean }[];
  readonly proven: readonly { readonly fn: string; readonly what: string; readonly worked: boolean }[];
}

export interface ReorderRow extends Reorder {
  readonly what: string;
}
