import type { LotId } from '../identities';
import { counted, shareBelief, shareRange, type ShareRange } from '../math';
import type { Condition, StockEvent } from './events';
import { foldStock } from './state';

/** What the fitted chips of a lot say of the rest of it. */
export interface LotArrivals extends ShareRange {
  readonly lot: LotId;
  readonly typeId: string;
  /** Fitted and judged afterwards, sound or dead. */
  readonly tried: number;
  /** Of those, the dead ones. */
  readonly dead: number;
}

/** So many chips' worth of the default stand beside what was seen. Engineering estimate. */
const DEFAULT_CHIPS = 20;

/**
 * Shares of chips that were dead on arrival, lot by lot, of those that were fitted and judged since, drawn towards the default while few were fitted.
 * @param deadOnArrival the bench's own share for any new part.
 */
export function lotArrivals(events: readonly StockEvent[], deadOnArrival: number): LotArrivals[] {
  const fitted = new Set<string>();
  const verdicts = new Map<string, Condition>();
  for (const { body } of events) {
    if (body.kind === 'move' && body.to.kind === 'fitted') body.chips.forEach((chip) => fitted.add(chip));
    if (body.kind === 'judged' && fitted.has(body.chip)) verdicts.set(body.chip, body.condition);
  }
  const judged = (...as: Condition[]): Set<string> =>
    new Set([...verdicts].flatMap(([chip, verdict]) => (as.includes(verdict) ? [chip] : [])));
  const [tried, dead] = [judged('sound', 'dead'), judged('dead')];
  const { lots, chips } = foldStock(events);
  const ofLot = (lot: LotId, among: ReadonlySet<string>): number =>
    [...among].filter((id) => {
      const origin = chips.get(id)?.origin;
      return origin?.kind === 'lot' && origin.lot === lot;
    }).length;
  return [...lots.values()].map(({ id, typeId }) => {
    const [all, bad] = [ofLot(id, tried), ofLot(id, dead)];
    const belief = counted(shareBelief(deadOnArrival, DEFAULT_CHIPS), bad, all - bad);
    return { lot: id, typeId, tried: all, dead: bad, ...shareRange(belief) };
  });
}
