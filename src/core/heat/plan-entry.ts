import { partByRef, type Board } from '../board';
import { ALLOYS, alloySchema } from '../joints';
import { fail, ok, type Result } from '../result';
import { parseFigure } from '../units';
import { heatPlanSchema, nozzleFor, startingPlan, type HeatPlan, type HeatStep } from './plan';
import { PURPOSE_WORDS, UNDERFILLS, UPPER_BOARD, usualStack, type Purpose, type UnderfillKind } from './purpose';
import type { Station } from './station';

export interface PlanEdit {
  readonly plan: HeatPlan;
  /** What the line does, in words. */
  readonly echo: string;
}

/**
 * Reads one line that changes a plan:
 *
 *   step 3 380 · step 3 380 25s 30l 12mm · step 5 off · add · drop 5
 *   for soften · softens 130 · underfill hard · sweep 8 · stack 30x20 at 35,30
 *   plate 120 · plate off · cover u9 · uncover u9 · part u4 · nozzle 6 · alloy sn63pb37
 */
export function parsePlanEntry(board: Board, station: Station, plan: HeatPlan, text: string): Result<PlanEdit> {
  const [head = '', ...words] = text.trim().toLowerCase().split(/\s+/);
  switch (head) {
    case 'step':
      return editStep(station, plan, words);
    case 'add':
      return checked(
        {
          ...plan,
          steps: [...plan.steps, { ...plan.steps[plan.steps.length - 1], name: `step ${plan.steps.length + 1}` }],
        },
        'One more step, as the last.',
      );
    case 'drop':
      return dropStep(plan, words[0]);
    case 'plate':
      return editPlate(station, plan, words[0]);
    case 'cover':
    case 'uncover':
      return editCover(board, plan, head === 'cover', words[0]);
    case 'part':
      return editPart(board, plan, words[0]);
    case 'nozzle':
      return editNozzle(station, plan, words[0]);
    case 'alloy':
      return editAlloy(plan, words[0]);
    case 'limit':
      return editLimit(board, plan, words);
    case 'for':
      return editPurpose(board, station, plan, words.join(' '));
    case 'softens':
    case 'underfill':
      return editSoftening(plan, words[0]);
    case 'sweep':
      return editSweep(plan, words[0]);
    case 'stack':
      return editStack(board, plan, words.join(' '));
    default:
      return fail(
        `Expected step, plate, cover, limit, part, nozzle, alloy, for, underfill, sweep, stack, aim, add or drop; got "${head}".`,
      );
  }
}

/** Every change is checked by the plan's own schema, so that a typed plan is as good as a stored one. */
function checked(plan: HeatPlan, echo: string): Result<PlanEdit> {
  const parsed = heatPlanSchema.safeParse(plan);
  if (parsed.success) return ok({ plan: parsed.data, echo });
  const [issue] = parsed.error.issues;
  return fail(`${issue.path.slice(-1).join('')}: ${issue.message}.`);
}

function stepIndex(plan: HeatPlan, word: string | undefined): Result<number> {
  const n = Number(word);
  if (Number.isInteger(n) && n >= 1 && n <= plan.steps.length) return ok(n - 1);
  return fail(`Expected a step from 1 to ${plan.steps.length}; got "${word ?? ''}".`);
}

function editStep(station: Station, plan: HeatPlan, words: string[]): Result<PlanEdit> {
  const index = stepIndex(plan, words[0]);
  if (!index.ok) return index;
  if (words.length < 2) return fail('Expected a setting after the step, such as: step 3 380 25s 30l 12mm.');
  let step = plan.steps[index.value];
  for (const word of words.slice(1)) {
    const change = stepChange(station, word);
    if (!change.ok) return change;
    step = { ...step, ...change.value };
  }
  const steps = plan.steps.map((s, i) => (i === index.value ? step : s));
  return checked({ ...plan, steps }, `Step ${index.value + 1}: ${stepWords(step)}.`);
}

function stepChange(station: Station, word: string): Result<Partial<HeatStep>> {
  if (word === 'off') return ok({ airSetC: null, flowLpm: 0 });
  const [, figure, unit] = /^([\d.,]+)(s|l|lpm|mm|c|°c)?$/.exec(word) ?? [];
  if (figure === undefined) return fail(`Expected 380, 25s, 30l, 12mm or off; got "${word}".`);
  const value = parseFigure(figure);
  if (!value.ok) return value;
  if (unit === 's') return ok({ durationS: value.value });
  if (unit === 'mm') return ok({ heightMm: value.value });
  if (unit === 'l' || unit === 'lpm') {
    const [low, high] = station.flowLpm;
    return value.value >= low && value.value <= high
      ? ok({ flowLpm: value.value })
      : fail(`Expected a flow from ${low} to ${high} l/min on ${station.name}; got ${value.value}.`);
  }
  const [low, high] = station.setC;
  return value.value >= low && value.value <= high
    ? ok({ airSetC: value.value })
    : fail(`Expected a dial from ${low} to ${high} °C on ${station.name}; got ${value.value}.`);
}

/** A step as it is read at the bench: `380 °C, 25 s, 30 l/min, 12 mm`. */
export function stepWords(step: HeatStep): string {
  return step.airSetC === null
    ? `air off, ${step.durationS} s`
    : `${step.airSetC} °C, ${step.durationS} s, ${step.flowLpm} l/min, ${step.heightMm} mm`;
}

function dropStep(plan: HeatPlan, word: string | undefined): Result<PlanEdit> {
  const index = stepIndex(plan, word);
  if (!index.ok) return index;
  return checked({ ...plan, steps: plan.steps.filter((_, i) => i !== index.value) }, `Step ${index.value + 1} goes.`);
}

function editPlate(station: Station, plan: HeatPlan, word: string | undefined): Result<PlanEdit> {
  if (word === 'off') return checked({ ...plan, plateSetC: null }, 'No plate.');
  if (!station.plate) return fail(`${station.name} has no plate.`);
  const value = parseFigure(word ?? '');
  if (!value.ok) return value;
  if (value.value < 30 || value.value > station.plate.maxSetC)
    return fail(`Expected a plate from 30 to ${station.plate.maxSetC} °C; got ${value.value}.`);
  return checked({ ...plan, plateSetC: value.value }, `Plate at ${value.value} °C below.`);
}

function editCover(board: Board, plan: HeatPlan, on: boolean, word: string | undefined): Result<PlanEdit> {
  const part = partByRef(board, (word ?? '').toUpperCase());
  if (!part) return fail(`Expected a part of this board; got "${word ?? ''}".`);
  if (part.ref === plan.partRef) return fail(`${part.ref} is the part being worked on: expected a neighbour.`);
  const others = plan.covers.filter((ref) => ref !== part.ref);
  return checked(
    { ...plan, covers: on ? [...others, part.ref] : others },
    on ? `A metal cover over ${part.ref}.` : `${part.ref} bare.`,
  );
}

function editPart(board: Board, plan: HeatPlan, word: string | undefined): Result<PlanEdit> {
  const part = partByRef(board, (word ?? '').toUpperCase());
  if (!part) return fail(`Expected a part of this board; got "${word ?? ''}".`);
  return checked(
    { ...plan, partRef: part.ref, covers: plan.covers.filter((c) => c !== part.ref) },
    `${part.ref} ${part.what} is worked on.`,
  );
}

function editNozzle(station: Station, plan: HeatPlan, word: string | undefined): Result<PlanEdit> {
  const value = Number(word);
  if (!station.nozzlesMm.includes(value))
    return fail(`Expected a nozzle of ${station.nozzlesMm.join(', ')} mm; got "${word ?? ''}".`);
  return checked({ ...plan, nozzleMm: value }, `Nozzle ${value} mm.`);
}

function editAlloy(plan: HeatPlan, word: string | undefined): Result<PlanEdit> {
  const alloy = alloySchema.options.find((a) => a.toLowerCase() === word || ALLOYS[a].words.startsWith(word || '?'));
  if (!alloy) return fail(`Expected ${alloySchema.options.join(', ')}; got "${word ?? ''}".`);
  return checked(
    { ...plan, alloy },
    `Joints of ${alloy}, ${ALLOYS[alloy].words}, liquidus ${ALLOYS[alloy].liquidusC} °C.`,
  );
}

/** A neighbour's limit for this plan: `limit u9 190`, and `limit u9 off` for the usual one again. */
function editLimit(board: Board, plan: HeatPlan, [name = '', figure = '']: string[]): Result<PlanEdit> {
  const part = partByRef(board, name.toUpperCase());
  if (!part) return fail(`Expected a part of this board; got "${name}".`);
  if (part.ref === plan.partRef) return fail(`${part.ref} is the part being worked on: expected a neighbour.`);
  const others = Object.fromEntries(Object.entries(plan.limitsC).filter(([ref]) => ref !== part.ref));
  if (figure === 'off') return checked({ ...plan, limitsC: others }, `${part.ref} at its usual limit.`);
  const value = parseFigure(figure);
  if (!value.ok) return value;
  if (value.value < 40 || value.value > 400) return fail(`Expected a limit from 40 to 400 °C; got ${value.value}.`);
  return checked(
    { ...plan, limitsC: { ...others, [part.ref]: value.value } },
    `${part.ref} stays below ${value.value} °C in this plan.`,
  );
}

const PURPOSE_ENTRIES: Readonly<Record<string, Purpose>> = {
  lift: 'lift',
  place: 'place',
  soften: 'soften',
  site: 'site',
  parting: 'partBoards',
  reball: 'reball',
};

/**
 * Another purpose begins with the first plan for it, on the same part and alloy.
 * @param homeRef the part to come back to from parting two boards.
 */
export function planFor(
  board: Board,
  station: Station,
  plan: HeatPlan,
  purpose: Purpose,
  homeRef: string = board.ports[0].controller,
): HeatPlan {
  const partRef = plan.partRef === UPPER_BOARD ? homeRef : plan.partRef;
  const stack = purpose === 'partBoards' ? (plan.stack ?? usualStack(board)) : plan.stack;
  const bodyMm = purpose === 'partBoards' ? stack!.sizeMm : board.packages[partByRef(board, partRef)!.package].bodyMm;
  const next = startingPlan(
    purpose === 'partBoards' ? UPPER_BOARD : partRef,
    plan.alloy,
    nozzleFor(station.nozzlesMm, bodyMm),
    purpose,
    stack,
  );
  const plateC = next.plateSetC === null || !station.plate ? null : Math.min(next.plateSetC, station.plate.maxSetC);
  return { ...next, ambientC: plan.ambientC, limitsC: plan.limitsC, softensC: plan.softensC, plateSetC: plateC };
}

function editPurpose(board: Board, station: Station, plan: HeatPlan, word: string): Result<PlanEdit> {
  const purpose = PURPOSE_ENTRIES[word];
  if (!purpose) return fail(`Expected ${Object.keys(PURPOSE_ENTRIES).join(', ')}; got "${word}".`);
  return checked(planFor(board, station, plan, purpose), `${PURPOSE_WORDS[purpose]}: begun with the usual steps.`);
}

function editSoftening(plan: HeatPlan, word = ''): Result<PlanEdit> {
  if (word in UNDERFILLS) {
    const { words, softensC } = UNDERFILLS[word as UnderfillKind];
    return checked({ ...plan, softensC }, `${words}: softens from ${softensC} °C.`);
  }
  const value = parseFigure(word);
  if (!value.ok) return fail(`Expected ${Object.keys(UNDERFILLS).join(', ')} or a temperature; got "${word}".`);
  if (value.value < 60 || value.value > 210)
    return fail(`Expected a softening temperature from 60 to 210 °C; got ${value.value}.`);
  return checked({ ...plan, softensC: value.value }, `Underfill softens from ${value.value} °C.`);
}

function editSweep(plan: HeatPlan, word = ''): Result<PlanEdit> {
  if (word === 'off') return checked({ ...plan, sweepMm: null }, 'Nozzle moved as usual on this station.');
  const value = parseFigure(word);
  if (!value.ok) return value;
  if (value.value < 0 || value.value > 40) return fail(`Expected a circle of 0 to 40 mm radius; got ${value.value}.`);
  return checked({ ...plan, sweepMm: value.value }, `Nozzle moved in a circle of ${value.value} mm radius.`);
}

/** `stack 30x20`, and with its centre: `stack 30x20 at 35,30`. */
function editStack(board: Board, plan: HeatPlan, text: string): Result<PlanEdit> {
  if (plan.purpose !== 'partBoards') return fail('Expected a plan that parts two boards (for parting); got another.');
  const found = /^([\d.]+)\s*x\s*([\d.]+)(?:\s+at\s+([\d.]+)\s*,\s*([\d.]+))?$/.exec(text);
  if (!found) return fail(`Expected the upper board’s size and centre, such as 30x20 at 35,30; got "${text}".`);
  const [w, h, x, y] = found.slice(1).map((v) => (v === undefined ? undefined : Number(v)));
  const was = plan.stack ?? usualStack(board);
  const stack = { ...was, sizeMm: [w!, h!] as [number, number], xMm: x ?? was.xMm, yMm: y ?? was.yMm };
  return checked({ ...plan, stack }, `Upper board of ${w} × ${h} mm, its centre at ${stack.xMm}, ${stack.yMm} mm.`);
}

const WORDS = [
  'step',
  'plate',
  'cover',
  'uncover',
  'limit',
  'part',
  'nozzle',
  'alloy',
  'add',
  'drop',
  'aim',
  'keep',
  'for',
  'underfill',
  'sweep',
  'stack',
];

/** Words that can follow what is typed. */
export function completePlanEntry(board: Board, station: Station, plan: HeatPlan, text: string): string[] {
  const words = text.toLowerCase().trimStart().split(/\s+/);
  const typed = words[words.length - 1];
  const list = words.length === 1 ? WORDS : words.length === 2 ? followers(board, station, plan, words[0]) : [];
  return list.filter((w) => w.startsWith(typed) && w !== typed).slice(0, 6);
}

function followers(board: Board, station: Station, plan: HeatPlan, head: string): string[] {
  if (head === 'step' || head === 'drop') return plan.steps.map((_, i) => String(i + 1));
  if (head === 'plate' || head === 'sweep') return ['off'];
  if (head === 'for') return Object.keys(PURPOSE_ENTRIES);
  if (head === 'underfill') return Object.keys(UNDERFILLS);
  if (head === 'nozzle') return station.nozzlesMm.map(String);
  if (head === 'alloy') return alloySchema.options.map((a) => a.toLowerCase());
  if (head === 'uncover') return plan.covers.map((c) => c.toLowerCase());
  return head === 'cover' || head === 'part' || head === 'limit' ? board.parts.map((p) => p.ref.toLowerCase()) : [];
}
