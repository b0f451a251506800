import type { PartRef } from '../../identities';
import { partByRef, type Board } from '../../board';
import { HOUR_PRICE, repairCost, type Practice } from '../../diagnose';
import { supplyId } from '../../stock';
import type { JobState } from '../log';

/** One new part that went on the board, as the bill knows it. */
export interface PartUsed {
  readonly ref: PartRef;
  readonly what: string;
  /** The part type, and where it came from, where one was chosen. */
  readonly typeId?: string;
  readonly offer?: string;
  /** By the bench's list, in the shop's money. */
  readonly price: number;
}

/** New parts that are on the board now. */
export function partsUsed(board: Board, { replaced, route }: JobState, practice: Practice): PartUsed[] {
  return replaced.flatMap((name): PartUsed[] => {
    const part = partByRef(board, name);
    if (!part) return [];
    const isChosen = route?.ref === name && route.typeId !== 'none';
    return [
      {
        ...{ ref: name, what: part.what, price: repairCost(board, { kind: 'part', ref: name }, practice).price },
        ...(isChosen && { typeId: route.typeId, offer: supplyId(route.supply) }),
      },
    ];
  });
}

/** Parts by the list and the bench's hour: what the price may begin with. */
export function suggestedPrice(parts: readonly PartUsed[], minutes: number, practice: Practice): number {
  const work = (minutes * (practice.prices?.hour ?? HOUR_PRICE)) / 60;
  return Math.round(100 * (parts.reduce((sum, p) => sum + p.price, 0) + work)) / 100;
}
