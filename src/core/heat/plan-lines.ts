import { partNamed, type Board } from '../board';
import {
  completeLine,
  defineCommand,
  expected,
  parseLine,
  type CommandDefinition,
  type Grammar,
} from '../command-line';
import { ALLOYS, alloySchema } from '../joints';
import { fail, ok, type Result } from '../result';
import { parseFigure } from '../units';
import { offsetLabel } from './offset-label';
import type { HeatPlan, HeatStep } from './plan';
import { applyPlanEdit, type PlanEdit } from './plan-edit';
import { PURPOSE_WORDS, UNDERFILLS, type Purpose, type UnderfillKind } from './purpose';
import type { Station } from './station';

/** The grammar of the Heat page's entry line: every line is one edit of the plan. */

interface PlanLineContext {
  readonly board: Board;
  readonly station: Station;
  readonly plan: HeatPlan;
}

/** What a line does to the plan. */
export interface PlanEntry {
  readonly edit: PlanEdit;
  readonly plan: HeatPlan;
  /** In words. */
  readonly echo: string;
}

type PlanLine = CommandDefinition<PlanLineContext, PlanEdit>;
const definePlanLine = (definition: PlanLine): PlanLine => defineCommand<PlanLineContext, PlanEdit>(definition);

const stepIndex = (plan: HeatPlan, word: string | undefined): Result<number> => {
  const n = Number(word);
  return Number.isInteger(n) && n >= 1 && n <= plan.steps.length
    ? ok(n - 1)
    : fail(`Expected a step from 1 to ${plan.steps.length}; got "${word ?? ''}".`);
};
const stepNumbers = ({ plan }: PlanLineContext, words: readonly string[]): string[] =>
  words.length === 2 ? plan.steps.map((_, i) => String(i + 1)) : [];
const partNames = ({ board }: PlanLineContext, words: readonly string[]): string[] =>
  words.length === 2 ? board.parts.map((p) => p.ref.toLowerCase()) : [];
const oneOfSecond = (list: readonly string[], words: readonly string[]): readonly string[] =>
  words.length === 2 ? list : [];

/** A word of a step: `380`, `25s`, `30l`, `12mm`, `off`. */
function stepChange(word: string): Result<Partial<HeatStep>> {
  if (word === 'off') return ok({ airSetC: null, flowLpm: 0 });
  const [, figure, unit] = /^([\d.,]+)(s|l|lpm|mm|c|°c)?$/.exec(word) ?? [];
  if (figure === undefined) return fail(`Expected 380, 25s, 30l, 12mm or off; got "${word}".`);
  const value = parseFigure(figure);
  if (!value.ok) return value;
  if (unit === 's') return ok({ durationS: value.value });
  if (unit === 'mm') return ok({ heightMm: value.value });
  return ok(unit === 'l' || unit === 'lpm' ? { flowLpm: value.value } : { airSetC: value.value });
}

const stepLine = definePlanLine({
  name: 'step',
  usage: [
    { example: 'step 3 380 25s 30l 12mm', help: 'a step’s dial, seconds, flow and height; any of them' },
    { example: 'step 5 off', help: 'a step without air' },
  ],
  parse({ plan }, { args: [word, ...settings] }) {
    const index = stepIndex(plan, word);
    if (!index.ok) return index;
    if (settings.length === 0) return fail('Expected a setting after the step, such as: step 3 380 25s 30l 12mm.');
    let change: Partial<HeatStep> = {};
    for (const setting of settings) {
      const next = stepChange(setting);
      if (!next.ok) return next;
      change = { ...change, ...next.value };
    }
    return ok({ edit: 'step', index: index.value, change });
  },
  complete: stepNumbers,
});

const addLine = definePlanLine({
  name: 'add',
  usage: [{ example: 'add', help: 'one more step, as the last' }],
  parse: () => ok({ edit: 'addStep' }),
  complete: () => [],
});

const dropLine = definePlanLine({
  name: 'drop',
  usage: [{ example: 'drop 5', help: 'a step goes' }],
  parse({ plan }, { args: [word] }) {
    const index = stepIndex(plan, word);
    return index.ok ? ok({ edit: 'dropStep', index: index.value }) : index;
  },
  complete: stepNumbers,
});

/** A figure, or `off` for none. */
function figureOrOff(word: string | undefined): Result<number | null> {
  return word === 'off' ? ok(null) : parseFigure(word ?? '');
}

const plateLine = definePlanLine({
  name: 'plate',
  usage: [
    { example: 'plate 120', help: 'the plate below, °C' },
    { example: 'plate off', help: 'no plate' },
  ],
  parse({ station }, { args: [word] }) {
    if (word !== 'off' && !station.plate) return fail(`${station.name} has no plate.`);
    const setC = figureOrOff(word);
    return setC.ok ? ok({ edit: 'plate', setC: setC.value }) : setC;
  },
  complete: (_context, words) => oneOfSecond(['off'], words),
});

const coverLine = (name: 'cover' | 'uncover', help: string): PlanLine =>
  definePlanLine({
    name,
    usage: [{ example: `${name} u9`, help }],
    parse({ board }, { args: [word = ''] }) {
      const ref = refOf(board, word);
      return ref.ok ? ok({ edit: 'cover', ref: ref.value, on: name === 'cover' }) : ref;
    },
    complete: (context, words) =>
      name === 'cover'
        ? partNames(context, words)
        : oneOfSecond(
            context.plan.covers.map((c) => c.toLowerCase()),
            words,
          ),
  });

const refOf = (board: Board, word: string): Result<string> => {
  const part = partNamed(board, word);
  return part ? ok(part.ref) : fail(`Expected a part of this board; got "${word}".`);
};

const partLine = definePlanLine({
  name: 'part',
  usage: [{ example: 'part u4', help: 'another part is worked on' }],
  parse({ board }, { args: [word = ''] }) {
    const ref = refOf(board, word);
    return ref.ok ? ok({ edit: 'part', ref: ref.value }) : ref;
  },
  complete: partNames,
});

const nozzleLine = definePlanLine({
  name: 'nozzle',
  usage: [{ example: 'nozzle 6', help: 'the nozzle, mm' }],
  parse({ station }, { args: [word] }) {
    const mm = Number(word);
    return station.nozzlesMm.includes(mm)
      ? ok({ edit: 'nozzle', mm })
      : fail(`Expected a nozzle of ${station.nozzlesMm.join(', ')} mm; got "${word ?? ''}".`);
  },
  complete: ({ station }, words) => oneOfSecond(station.nozzlesMm.map(String), words),
});

const alloyLine = definePlanLine({
  name: 'alloy',
  usage: [{ example: 'alloy leaded', help: `the joints: ${alloySchema.options.join(', ')}` }],
  parse(_context, { args: [word] }) {
    const alloy = alloySchema.options.find((a) => a.toLowerCase() === word || ALLOYS[a].words.startsWith(word || '?'));
    return alloy ? ok({ edit: 'alloy', alloy }) : fail(expected(alloySchema.options, word));
  },
  complete: (_context, words) =>
    oneOfSecond(
      alloySchema.options.map((a) => a.toLowerCase()),
      words,
    ),
});

const limitLine = definePlanLine({
  name: 'limit',
  usage: [
    { example: 'limit u9 190', help: 'a neighbour’s limit for this plan, °C' },
    { example: 'limit u9 off', help: 'its usual one again' },
  ],
  parse({ board }, { args: [word = '', figure = ''] }) {
    const ref = refOf(board, word);
    if (!ref.ok) return ref;
    const maxC = figureOrOff(figure);
    return maxC.ok ? ok({ edit: 'limit', ref: ref.value, maxC: maxC.value }) : maxC;
  },
  complete: partNames,
});

const PURPOSES_TYPED: Readonly<Record<string, Purpose>> = {
  lift: 'lift',
  place: 'place',
  soften: 'soften',
  site: 'site',
  parting: 'partBoards',
  reball: 'reball',
};

const purposeLine = definePlanLine({
  name: 'for',
  usage: [{ example: 'for soften', help: `what the plan is for: ${Object.keys(PURPOSES_TYPED).join(', ')}` }],
  parse(_context, { args }) {
    const purpose = PURPOSES_TYPED[args.join(' ')];
    return purpose ? ok({ edit: 'purpose', purpose }) : fail(expected(Object.keys(PURPOSES_TYPED), args.join(' ')));
  },
  complete: (_context, words) => oneOfSecond(Object.keys(PURPOSES_TYPED), words),
});

const underfillLine = definePlanLine({
  name: 'underfill',
  aliases: ['softens'],
  usage: [
    { example: 'underfill hard', help: `what the underfill is: ${Object.keys(UNDERFILLS).join(', ')}` },
    { example: 'softens 130', help: 'where it softens, °C' },
  ],
  parse(_context, { args: [word = ''] }) {
    if (word in UNDERFILLS) return ok({ edit: 'softens', softensC: UNDERFILLS[word as UnderfillKind].softensC });
    const value = parseFigure(word);
    if (!value.ok) return fail(`Expected ${Object.keys(UNDERFILLS).join(', ')} or a temperature; got "${word}".`);
    return ok({ edit: 'softens', softensC: value.value });
  },
  complete: (_context, words) => oneOfSecond(words[0] === 'underfill' ? Object.keys(UNDERFILLS) : [], words),
});

const sweepLine = definePlanLine({
  name: 'sweep',
  usage: [
    { example: 'sweep 8', help: 'the nozzle is moved in a circle of this radius, mm' },
    { example: 'sweep off', help: 'as it is usually moved on this station' },
  ],
  parse(_context, { args: [word] }) {
    const radiusMm = figureOrOff(word);
    return radiusMm.ok ? ok({ edit: 'sweep', radiusMm: radiusMm.value }) : radiusMm;
  },
  complete: (_context, words) => oneOfSecond(['off'], words),
});

const offsetLine = definePlanLine({
  name: 'offset',
  usage: [
    { example: 'offset -1.5 1', help: 'the nozzle stands so far beside the middle, mm along the board’s x and y' },
    { example: 'offset off', help: 'over the middle of the part' },
  ],
  parse(_context, { args: [x, y] }) {
    if (x === 'off') return ok({ edit: 'offset', xMm: 0, yMm: 0 });
    const [xMm, yMm] = [x, y].map((word) => (word && /^-?[\d.,]+$/.test(word) ? parseFigure(word) : undefined));
    return xMm?.ok && yMm?.ok
      ? ok({ edit: 'offset', xMm: xMm.value, yMm: yMm.value })
      : fail(
          `Expected millimetres along x and y, such as: offset -1.5 1, or off; got "${[x, y].filter(Boolean).join(' ')}".`,
        );
  },
  complete: (_context, words) => oneOfSecond(['off'], words),
});

const stackLine = definePlanLine({
  name: 'stack',
  usage: [
    {
      example: 'stack 30x20 at 35,30',
      help: 'the upper board’s size and centre, mm; gap 0.8 for what is between them',
    },
  ],
  parse({ plan }, { args }) {
    if (plan.purpose !== 'partBoards') return fail('Expected a plan that parts two boards (for parting); got another.');
    const text = args.join(' ');
    const found = /^([\d.]+)\s*x\s*([\d.]+)(?:\s+at\s+([\d.]+)\s*,\s*([\d.]+))?(?:\s+gap\s+([\d.]+))?$/.exec(text);
    if (!found) return fail(`Expected the upper board’s size and centre, such as 30x20 at 35,30; got "${text}".`);
    const [w, h, xMm, yMm, gapMm] = found.slice(1).map((v) => (v === undefined ? undefined : Number(v)));
    return ok({ edit: 'stack', sizeMm: [w!, h!], xMm, yMm, gapMm });
  },
  complete: () => [],
});

/** Lines that the page itself answers: they set off a computation, or keep the plan with the job. */
export const PAGE_LINES = [
  { example: 'aim', help: 'the dial is set so that the coldest joint just gets hot enough' },
  {
    example: 'keep',
    help: 'the plan is kept with the job; one that breaks a limit: keep because the board is a donor',
  },
] as const;

export const PLAN_GRAMMAR: Grammar<PlanLineContext, PlanEdit> = {
  emptyLine: 'a change to the plan, such as: step 3 380',
  commands: [
    stepLine,
    plateLine,
    coverLine('cover', 'a metal cover or tape over a neighbour'),
    coverLine('uncover', 'it comes off again'),
    limitLine,
    partLine,
    nozzleLine,
    alloyLine,
    addLine,
    dropLine,
    purposeLine,
    underfillLine,
    sweepLine,
    offsetLine,
    stackLine,
  ],
  names: () => PAGE_LINES.map((l) => l.example),
};

/** Reads one line that changes a plan. */
export function parsePlanEntry(board: Board, station: Station, plan: HeatPlan, text: string): Result<PlanEntry> {
  const edit = parseLine(PLAN_GRAMMAR, { board, station, plan }, text);
  if (!edit.ok) return edit;
  const next = applyPlanEdit(board, station, plan, edit.value);
  return next.ok ? ok({ edit: edit.value, plan: next.value, echo: editLabel(board, next.value, edit.value) }) : next;
}

/** Words that can follow what is typed. */
export const completePlanEntry = (board: Board, station: Station, plan: HeatPlan, text: string): string[] =>
  completeLine(PLAN_GRAMMAR, { board, station, plan }, text);

/** A step as it is read at the bench: `380 °C, 25 s, 30 l/min, 12 mm`. */
export function stepLabel(step: HeatStep): string {
  return step.airSetC === null
    ? `air off, ${step.durationS} s`
    : `${step.airSetC} °C, ${step.durationS} s, ${step.flowLpm} l/min, ${step.heightMm} mm`;
}

/** What an edit did, in words. */
function editLabel(board: Board, plan: HeatPlan, edit: PlanEdit): string {
  switch (edit.edit) {
    case 'step':
      return `Step ${edit.index + 1}: ${stepLabel(plan.steps[edit.index])}.`;
    case 'addStep':
      return 'One more step, as the last.';
    case 'dropStep':
      return `Step ${edit.index + 1} goes.`;
    case 'plate':
      return edit.setC === null ? 'No plate.' : `Plate at ${edit.setC} °C below.`;
    case 'cover':
      return edit.on ? `A metal cover over ${edit.ref}.` : `${edit.ref} bare.`;
    case 'part':
      return `${edit.ref} ${board.parts.find((p) => p.ref === edit.ref)!.what} is worked on.`;
    case 'nozzle':
      return `Nozzle ${edit.mm} mm.`;
    case 'alloy': {
      const { words, liquidusC } = ALLOYS[edit.alloy];
      return `Joints of ${edit.alloy}, ${words}, liquidus ${liquidusC} °C.`;
    }
    case 'limit':
      return edit.maxC === null
        ? `${edit.ref} at its usual limit.`
        : `${edit.ref} stays below ${edit.maxC} °C in this plan.`;
    case 'purpose':
      return `${PURPOSE_WORDS[edit.purpose]}: begun with the usual steps.`;
    case 'softens': {
      const kind = Object.values(UNDERFILLS).find((u) => u.softensC === edit.softensC);
      return kind ? `${kind.words}: softens from ${edit.softensC} °C.` : `Underfill softens from ${edit.softensC} °C.`;
    }
    case 'sweep':
      return edit.radiusMm === null
        ? 'Nozzle moved as usual on this station.'
        : `Nozzle moved in a circle of ${edit.radiusMm} mm radius.`;
    case 'offset':
      return `Nozzle ${offsetLabel(board, plan) ?? 'over the middle of the part'}.`;
    case 'stack': {
      const { xMm, yMm, gapMm } = plan.stack!;
      return `Upper board of ${edit.sizeMm.join(' × ')} mm, its centre at ${xMm}, ${yMm} mm, ${gapMm} mm over the lower one.`;
    }
  }
}
