import type { ChipId, JobNumber, PartRef } from '../identities';
import type { ChosenRoute } from '../job';
import { nextId, type StockBody, type StockState } from '../stock';
import type { RouteView } from './choice';

/** Why a way may not be chosen, in a sentence; what the screen does not offer is refused here too. */
export function refusedRoute(route: RouteView): string | undefined {
  if (route.held) return `Expected a chip that may be taken; ${route.held}.`;
  const block = route.cells.find((c) => c.outcome === 'blocks');
  return block && `Expected a chip that fits; ${block.attribute}: ${block.reason}`;
}

/** What choosing a way does to the stock: what was set aside for this job goes back; the chosen chip is set aside, with its partners. */
export function setAside(state: StockState, job: JobNumber, route: RouteView | undefined): StockBody[] {
  const waiting = [...state.chips.values()].filter((c) => c.place.kind === 'bag' && c.place.job === job);
  const supply = route?.supply;
  if (supply?.kind === 'chip' && waiting.some((c) => c.id === supply.chip)) return [];
  const back = waiting
    .filter((c) => c.origin.kind !== 'job')
    .map(({ id, origin, partners }): StockBody => {
      const to =
        origin.kind === 'donor' ? ({ kind: 'donorTray', donor: origin.donor } as const) : ({ kind: 'drawer' } as const);
      return { kind: 'move', chips: [id, ...partners], to };
    })
    .filter((b, i, all) => all.findIndex((x) => sameChips(x, b)) === i);
  const to = { kind: 'bag', job } as const;
  if (supply?.kind === 'chip') {
    const { partners } = state.chips.get(supply.chip)!;
    return [...back, { kind: 'move', chips: [supply.chip, ...partners], to }];
  }
  if (supply?.kind !== 'lot') return back;
  const chip = nextId(state, 'C');
  return [...back, { kind: 'take', lot: supply.lot, chip }, { kind: 'move', chips: [chip], to }];
}

/** A part of a lot has a name of its own once it is taken out. */
export function withChip(body: ChosenRoute, events: readonly StockBody[]): ChosenRoute {
  const taken = events.find((e) => e.kind === 'take');
  return taken ? { ...body, supply: { kind: 'chip', chip: taken.chip, lot: taken.lot } } : body;
}

const sameChips = (a: StockBody, b: StockBody): boolean =>
  a.kind === 'move' && b.kind === 'move' && [...a.chips].sort().join() === [...b.chips].sort().join();

/**
 * The chip that goes onto the board with a new part: the one chosen for its place, where the stock has it in the job's bag. Where
 * it lies elsewhere by now the stock stays as it is: the job's record does not wait for it.
 */
export function fittedChip(
  state: StockState,
  job: JobNumber,
  ref: PartRef,
  route: Pick<ChosenRoute, 'ref' | 'supply'> | undefined,
): StockBody | undefined {
  if (route?.ref !== ref || route.supply.kind !== 'chip') return undefined;
  const chip = state.chips.get(route.supply.chip);
  if (chip?.place.kind !== 'bag' || chip.place.job !== job) return undefined;
  return { kind: 'move', chips: [chip.id], to: { kind: 'fitted', job, ref } };
}

/** How a chip that a job proved, or whose lesson was taken back, is judged; nothing where it is judged so already. */
export function judgedByJob(
  state: StockState,
  events: readonly StockBody[],
  { chip, job, condition, why }: { chip: ChipId; job: JobNumber; condition: 'sound' | 'suspect'; why: string },
): { readonly body?: StockBody; readonly message: string } {
  const { place } = state.chips.get(chip) ?? {};
  if (place?.kind !== 'fitted' || place.job !== job)
    return { message: `${chip} is not on this board by the stock: not counted.` };
  const message = `${chip} is judged ${condition}.`;
  const last = events.findLast((body) => body.kind === 'judged' && body.chip === chip);
  const isSame = last?.kind === 'judged' && last.condition === condition && last.why === why;
  return isSame ? { message } : { message, body: { kind: 'judged', chip, condition, why } };
}
