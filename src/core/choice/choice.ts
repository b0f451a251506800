import type { PartRef } from '../identities';
import { partByRef, type Board, type Slot } from '../board';
import { HOUR_PRICE, partWork, type Repair } from '../diagnose';
import type { ChosenRoute, JobView } from '../job';
import {
  SCHOOL_WORDS,
  memorySchool,
  type Action,
  type Cell,
  type FunctionProof,
  type Need,
  type PartFamily,
  type PartType,
  type Report,
  type Success,
  type Verdict,
} from '../parts';
import {
  goes,
  outlookOf,
  routesFor,
  sourcingDefaults,
  type Outlook,
  type Route,
  type SourcingPractice,
  type Supplies,
} from '../sourcing';
import { hoursOf, type Supply } from '../stock';

/** Everything that a choice of chip rests on. */
export interface ChoiceWorld extends Supplies {
  readonly families: readonly PartFamily[];
  readonly reports: readonly Report[];
  readonly practice: SourcingPractice;
  /** ISO 8601 time. */
  readonly now: string;
}

/** One way to fill the place, as the screen shows it. */
export interface RouteView extends Outlook {
  /** What it is called on labels. */
  readonly offer: string;
  readonly supply: Supply;
  readonly typeId: string;
  readonly revision: string;
  readonly what: string;
  readonly summary: string;
  readonly verdict: Verdict;
  readonly held?: string;
  readonly goes: boolean;
  readonly cells: readonly Cell[];
  readonly actions: readonly Pick<Action, 'kind' | 'words' | 'minutes'>[];
  readonly cautions: readonly string[];
  readonly flags: readonly string[];
  readonly success: Success;
  readonly functions: readonly (FunctionProof & { readonly what: string })[];
  readonly reports: readonly Report[];
  readonly chosen: ChosenRoute;
}

export interface ChoiceView {
  readonly ref: PartRef;
  readonly what: string;
  readonly builtId: string;
  readonly position?: string;
  readonly image?: string;
  readonly imageSound?: boolean;
  readonly school: string;
  readonly schoolWhy: string;
  readonly worth?: number;
  /** The part may stay off after a proof. */
  readonly leaveOff?: ChosenRoute;
  readonly routes: readonly RouteView[];
}

/** The place that the choice is about: the decided one, else the first that the best repairs replace. */
export function placeToFill(job: JobView): Slot | undefined {
  const { decision } = job.state;
  const refs = decision
    ? [decision.action === 'replace' ? decision.ref : null]
    : job.repairs.flatMap((r) => r.targets.flatMap((t) => (t.kind === 'part' ? [t.ref] : [])));
  return refs.map((ref) => job.board.slots.find((s) => s.ref === ref)).find(Boolean);
}

/** The place of a job and what is known of it. */
export function needOf(job: JobView, slot: Slot, { types, families }: ChoiceWorld): Need {
  const built = types.find((t) => t.id === slot.type);
  return {
    board: job.board,
    slot,
    built,
    family: families.find((f) => f.id === built?.family),
    imageSound: slot.image === undefined ? undefined : imageSoundOf(job, slot.image),
  };
}

/** What the image checks said of the memory as it is on the board: a written image counts, then a dump, then a reading. */
function imageSoundOf({ state }: JobView, memory: string): boolean | undefined {
  if (state.written?.ref === memory) return true;
  if (state.images.patient) return state.images.patient.sound;
  const last = state.readings.findLast((r) => r.measurement.kind === 'imageCheck' && r.measurement.ref === memory);
  return last && last.value.kind === 'pass';
}

/** Every way to fill the place, judged and priced. */
export function choiceOf(job: JobView, slot: Slot, world: ChoiceWorld): ChoiceView {
  const need = needOf(job, slot, world);
  const hourPrice = job.practice.prices?.hour ?? HOUR_PRICE;
  const settings = { ...sourcingDefaults(world.practice), nowH: hoursOf(world.now), hourPrice };
  const worth = job.state.story?.worth;
  const repair = plannedRepair(job, slot.ref);
  const routes = routesFor(need, world, world.reports, settings, job.number);
  const { school, why } = memorySchool(need.family);
  const part = partByRef(job.board, slot.ref)!;
  return {
    ref: slot.ref,
    what: part.what,
    builtId: slot.type,
    position: slot.position,
    image: slot.image,
    imageSound: need.imageSound,
    school: SCHOOL_WORDS[school],
    schoolWhy: why,
    worth,
    leaveOff: part.optional ? leaveOff(slot) : undefined,
    routes: mergeAlike(
      routes.map((route) => routeView(job.board, slot, route, outlookOf(route, repair, hourPrice, worth))),
    ),
  };
}

/** The repair of this place where it is among the best ones; else the part is taken to be the fault. */
function plannedRepair(job: JobView, ref: PartRef): Pick<Repair, 'cureChance' | 'minutes' | 'harm'> {
  const found = job.repairs.find(
    ({ targets: [first, ...more] }) => more.length === 0 && first.kind === 'part' && first.ref === ref,
  );
  return found ?? { cureChance: 1, minutes: 0, harm: partWork(job.board, ref).harm };
}

function routeView(board: Board, slot: Slot, route: Route, outlook: Outlook): RouteView {
  const { offer, fit, held } = route;
  const { type } = offer.candidate;
  return {
    ...outlook,
    offer: offer.id,
    supply: offer.supply,
    typeId: type.id,
    revision: type.revision,
    what: type.what,
    summary: offer.summary,
    verdict: fit.verdict,
    held,
    goes: goes(route),
    cells: fit.cells,
    actions: fit.actions.map(({ kind, words, minutes }) => ({ kind, words, minutes })),
    cautions: fit.cautions,
    flags: fit.flags,
    success: fit.success,
    functions: fit.functions.map((f) => ({ ...f, what: board.functions.find((x) => x.id === f.fn)?.what ?? f.fn })),
    reports: fit.reports,
    chosen: chosenRoute(slot, type, route),
  };
}

/** Chips of one donor that are alike for this place make one row; the first of them is taken. */
function mergeAlike(routes: readonly RouteView[]): RouteView[] {
  const rows = new Map<string, RouteView>();
  for (const route of routes) {
    const { typeId, offer, supply, verdict, held, cells } = route;
    const donated = supply.kind === 'donor' ? supply : undefined;
    const alike = JSON.stringify([typeId, donated?.donor ?? offer, verdict, held, cells.map((c) => c.reason)]);
    const first = rows.get(alike);
    rows.set(alike, first && donated ? { ...first, summary: `${first.summary}, ${donated.ref}` } : route);
  }
  return [...rows.values()];
}

/** The event that keeps this choice: the job's plan for the stages to come. */
function chosenRoute(slot: Slot, type: PartType, { offer, fit }: Route): ChosenRoute {
  return {
    kind: 'route',
    ref: slot.ref,
    typeId: type.id,
    supply: offer.supply,
    verdict: fit.verdict,
    off: [slot.ref, ...new Set(fit.actions.flatMap((a) => (a.kind === 'partner' || a.kind === 'strap' ? a.refs : [])))],
    actions: fit.actions.map(({ kind, words }) => ({ kind, words })),
    prove: slot.functions,
  };
}

const leaveOff = (slot: Slot): ChosenRoute => ({
  kind: 'route',
  ref: slot.ref,
  typeId: 'none',
  supply: { kind: 'none' },
  verdict: 'fits',
  off: [slot.ref],
  actions: [{ kind: 'leaveOff', words: 'Leave it off after the proof, and say so in the record' }],
  prove: slot.functions,
});
