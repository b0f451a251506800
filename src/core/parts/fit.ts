import type { PartRef } from '../identities';
import { partByRef } from '../board';
import {
  SOURCE_WEIGHT,
  functionProofs,
  successOf,
  type FunctionProof,
  type Report,
  type SourceWeights,
  type Success,
} from './evidence';
import type { PartFamily } from './profile';
import {
  RELATE,
  strapWords,
  type Candidate,
  type Need,
  type Relation,
  type StrapChange,
  type Surroundings,
} from './relations';
import {
  ACTION_KINDS,
  ATTRIBUTES,
  ATTRIBUTE_WORDS,
  RULES,
  fillReason,
  type ActionKind,
  type Attribute,
  type Outcome,
  type Rule,
  type RuleId,
} from './rules';

export const VERDICTS = ['fits', 'fitsAfter', 'notTried', 'doesNotFit'] as const;
export type Verdict = (typeof VERDICTS)[number];
export const VERDICT_WORDS: Readonly<Record<Verdict, string>> = {
  fits: 'fits',
  fitsAfter: 'fits after work',
  notTried: 'not tried',
  doesNotFit: 'does not fit',
};

export interface Cell {
  readonly attribute: Attribute;
  readonly rule: RuleId;
  readonly outcome: Outcome;
  readonly word: string;
  readonly reason: string;
}

export interface Action {
  readonly kind: ActionKind | 'verify';
  readonly words: string;
  /** Bench minutes; waiting in an oven does not count. */
  readonly minutes: number;
  /** Parts of the board that come off or change for it. */
  readonly refs: readonly PartRef[];
  readonly strap?: StrapChange;
}

/** What can be said of one candidate at one place. */
export interface Fit {
  readonly verdict: Verdict;
  readonly cells: readonly Cell[];
  /** In the order in which they are done. */
  readonly actions: readonly Action[];
  readonly cautions: readonly string[];
  readonly success: Success;
  readonly functions: readonly FunctionProof[];
  /** Rules that a report contradicts, in words. */
  readonly flags: readonly string[];
  readonly reports: readonly Report[];
}

/** Bench minutes of an action. Engineering estimates: a chip resistor, an 8-pin memory, writing on the clip. */
const ACTION_MINUTES: Readonly<Record<ActionKind, number>> = {
  bake: 3,
  strap: 6,
  partner: 18,
  writePosition: 12,
  writeImage: 12,
};

export interface FitSettings extends Surroundings {
  readonly weights?: SourceWeights;
}

/**
 * Compares a candidate with a place, attribute by attribute. Blocked anywhere: does not fit. Else not tried where an
 * attribute is unknown, or where no rule and no report says that it goes. Reports never change what is unknown, and
 * a report against a rule that blocks flags the rule instead of overruling it.
 */
export function judgeFit(need: Need, candidate: Candidate, reports: readonly Report[], settings: FitSettings): Fit {
  const { board, slot, family } = need;
  const part = partByRef(board, slot.ref)!;
  const matching = reports.filter((r) => r.typeId === candidate.type.id && isSamePlace(need, r));
  const relations = ATTRIBUTES.map((attribute) => RELATE[attribute](need, candidate, settings, part));
  const proven = matching.some((r) => r.worked);
  const cells = relations.map((relation, i) => cellOf(ATTRIBUTES[i], relation, family, proven));
  const actions = orderedActions(need, relations, cells);
  return {
    verdict: verdictOf(cells, actions),
    cells,
    actions,
    cautions: cautionsOf(need, candidate, cells),
    success: successOf(matching, settings.weights ?? SOURCE_WEIGHT),
    functions: functionProofs(slot.functions, matching),
    flags: flagsOf(cells, matching),
    reports: matching,
  };
}

/** Reports count for every place of the board that was built with the same type. */
const isSamePlace = ({ board, slot }: Need, report: Report): boolean =>
  report.boardId === board.id &&
  (report.ref === slot.ref || board.slots.find((s) => s.ref === report.ref)?.type === slot.type);

function cellOf(
  attribute: Attribute,
  { rule: id, facts }: Relation,
  family: PartFamily | undefined,
  proven: boolean,
): Cell {
  const rule: Rule = RULES[id];
  const changed = isChangeable(rule) ? family?.rules[id] : undefined;
  const settled = changed ?? rule.outcome;
  const outcome = settled === 'untried' && proven ? 'proven' : settled;
  const reason = fillReason(rule.reason, facts);
  return {
    attribute,
    rule: id,
    outcome,
    word: changed ? `${rule.word} (set here)` : rule.word,
    reason: outcome === 'proven' ? `${reason} A report says it went.` : reason,
  };
}

/** Rules that a family may set otherwise: those that judge, not those that compare or know nothing. */
export const isChangeable = (rule: Rule): boolean =>
  rule.action === undefined && (rule.outcome === 'fits' || rule.outcome === 'untried' || rule.outcome === 'blocks');

function verdictOf(cells: readonly Cell[], actions: readonly Action[]): Verdict {
  const has = (outcome: Outcome): boolean => cells.some((c) => c.outcome === outcome);
  if (has('blocks')) return 'doesNotFit';
  if (has('unknown') || has('untried')) return 'notTried';
  return actions.some((a) => a.kind !== 'verify') ? 'fitsAfter' : 'fits';
}

/** Bake before heat, straps while the place is bare, the memory, the image, and at last the proof. */
function orderedActions(need: Need, relations: readonly Relation[], cells: readonly Cell[]): Action[] {
  const wanted = relations.flatMap((relation, i): [ActionKind, Relation][] => {
    const { action }: Rule = RULES[relation.rule];
    return action && cells[i].outcome === 'fixable' ? [[action, relation]] : [];
  });
  const actions = ACTION_KINDS.flatMap((kind) =>
    wanted.filter(([k]) => k === kind).flatMap(([, relation]) => actionsOf(kind, relation, need)),
  );
  return mergeWriting([...actions, ...verifyAction(need)]);
}

function actionsOf(kind: ActionKind, { facts, strap }: Relation, { slot }: Need): Action[] {
  const minutes = ACTION_MINUTES[kind];
  const memory = slot.image ?? '';
  switch (kind) {
    case 'bake':
      return [{ kind, minutes, refs: [], words: `Bake ${facts.bake}` }];
    case 'strap':
      return strap!.changes.map((c) => ({ kind, minutes, refs: [c.ref], words: strapWords(c), strap: c }));
    case 'partner':
      return [{ kind, minutes, refs: [memory], words: `Move its partner ${facts.partner} to ${memory} too` }];
    case 'writePosition':
      return [{ kind, minutes, refs: [memory], words: `Write ${slot.position} into the image of ${memory}` }];
    case 'writeImage':
      return [{ kind, minutes, refs: [memory], words: `Write a sound image to ${memory}` }];
  }
}

function verifyAction({ board, slot }: Need): Action[] {
  const functions = board.functions.filter((f) => slot.functions.includes(f.id));
  if (functions.length === 0) return [];
  const minutes = functions.reduce((sum, f) => sum + f.minutes, 0);
  return [{ kind: 'verify', minutes, refs: [], words: `Verify: ${functions.map((f) => f.what).join(', ')}` }];
}

/** A position goes in with the image: one writing serves both. */
function mergeWriting(actions: readonly Action[]): Action[] {
  const both = actions.some((a) => a.kind === 'writeImage') && actions.some((a) => a.kind === 'writePosition');
  if (!both) return [...actions];
  return actions
    .filter((a) => a.kind !== 'writePosition')
    .map((a) => (a.kind === 'writeImage' ? { ...a, words: `${a.words}, with the position of this place in it` } : a));
}

function cautionsOf({ slot, imageSound }: Need, { type, from }: Candidate, cells: readonly Cell[]): string[] {
  const cautions: string[] = [];
  const rule = (attribute: Attribute): RuleId => cells[ATTRIBUTES.indexOf(attribute)].rule;
  if (rule('partner') === 'partner/comes')
    cautions.push('Its memory brings another unit’s identity: keep what belongs to this unit, for its repair only.');
  if (imageSound === undefined && slot.image && type.imageFamily)
    cautions.push(`The image in ${slot.image} has not been read yet.`);
  if (from) cautions.push('From another board: see it work there before it is taken, and mark pin 1.');
  return cautions;
}

function flagsOf(cells: readonly Cell[], reports: readonly Report[]): string[] {
  const blocked = cells.filter((c) => c.outcome === 'blocks');
  const worked = reports.filter((r) => r.worked);
  const flags = blocked.flatMap(({ attribute, rule }) =>
    worked.map((r) => `${ATTRIBUTE_WORDS[attribute]}: a report of ${r.date} says it works, the rule ${rule} says no.`),
  );
  const allGo = cells.every((c) => c.outcome === 'same' || c.outcome === 'fits');
  const failed = allGo ? reports.filter((r) => !r.worked) : [];
  return [...flags, ...failed.map((r) => `All rules say it fits; a report of ${r.date} says it did not work.`)];
}

/** Bench minutes of all actions. */
export const actionMinutes = ({ actions }: Pick<Fit, 'actions'>): number =>
  actions.reduce((sum, a) => sum + a.minutes, 0);
