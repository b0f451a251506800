import type { PartRef } from '../identities';
import type { Belief } from './belief';
import { openingMinutes, type Access } from './access';
import { RepairCosting, type RepairOption } from './repair-costing';
import type { RepairTarget } from './faults';
import type { Practice } from './practice';

/** What is done: a part replaced, an image rewritten, damage of the board mended, joints touched up, what it runs on restored. */
export type RepairAction = 'replace' | 'rewrite' | 'mend' | 'touchUp' | 'clean' | 'restore';

/** What of a board can be worked on. */
export type BoardTarget = Exclude<RepairTarget, { kind: 'outside' | 'nothing' | 'unlisted' }>;

const ACTION: Readonly<Record<BoardTarget['kind'], RepairAction>> = {
  part: 'replace',
  image: 'rewrite',
  rail: 'mend',
  screw: 'mend',
  joints: 'touchUp',
  contacts: 'clean',
  software: 'restore',
};

export const repairAction = ({ kind }: BoardTarget): RepairAction => ACTION[kind];

/** The name that the bench knows a target by: a part, a rail or a screw. */
export function targetName(target: BoardTarget): string {
  switch (target.kind) {
    case 'part':
    case 'image':
    case 'joints':
    case 'contacts':
      return target.ref;
    case 'software':
      return 'software';
    case 'rail':
      return target.rail;
    case 'screw':
      return target.screw;
  }
}

/** In words, as an instruction. */
export function repairLabel(target: BoardTarget): string {
  switch (target.kind) {
    case 'part':
      return `Replace ${target.ref}`;
    case 'image':
      return `Rewrite the image of ${target.ref}`;
    case 'joints':
      return `Touch up the joints of ${target.ref}`;
    case 'contacts':
      return `Clean the contacts of ${target.ref}`;
    case 'software':
      return 'Restore what the device runs on; its data may be lost';
    case 'rail':
      return `Lay a wire past the trace to ${target.rail}`;
    case 'screw':
      return `Mend the board at screw ${target.screw}`;
  }
}

export interface Repair {
  /** One, or two that are done together. */
  readonly targets: readonly BoardTarget[];
  readonly label: string;
  /** Chance that the board is cured by it. */
  readonly cureChance: number;
  readonly minutes: number;
  /** New parts, in the shop's money. */
  readonly price: number;
  /** Chance that the board is harmed for good. */
  readonly harm: number;
  /** Minutes, parts and risk as minutes. */
  readonly weighedMinutes: number;
}

/** The order of trying: most chance of a cure for what it costs first. */
export const byWorth = (a: Worth, b: Worth): number =>
  b.cureChance / b.weighedMinutes - a.cureChance / a.weighedMinutes;

type Worth = Pick<Repair, 'cureChance' | 'weighedMinutes'>;

/** What is outside is exchanged, not worked on; and what no list holds has no work. */
const isWork = ({ target }: RepairOption): boolean =>
  target.kind !== 'outside' && target.kind !== 'nothing' && target.kind !== 'unlisted';

/** Below this a repair is not worth naming. */
const LEAST_CURE = 0.01;
/** A pair is named from this chance of being the cure together on. Engineering estimate. */
const LEAST_PAIR = 0.05;

/**
 * Repairs in the order of cure chance for what they cost, single ones and pairs. For one fault and independent costs the order by
 * p/C is optimal (Heckerman, Breese, Rommelse 1995; Kalagnanam & Henrion 1988).
 */
export function rankRepairs(
  belief: Belief,
  access: Access,
  done: ReadonlySet<string>,
  absent: ReadonlySet<PartRef> = new Set(),
  { practice, worth }: { readonly practice?: Practice; readonly worth?: number } = {},
): Repair[] {
  const cure = new RepairCosting(belief, absent, done, practice, worth);
  const opening = openingMinutes(access);
  const alone = new Map<RepairOption, number>();
  const together: { a: RepairOption; b: RepairOption; p: number }[] = [];
  cure.each(cure.gather(belief.likely), (p, needs) => {
    const list = needs.map((n) => cure.needs[n - 1]);
    if (list.length > 2 || !list.every(isWork)) return;
    const [first, second] = list;
    if (!second) alone.set(first, p);
    else if (p >= LEAST_PAIR) together.push({ a: first, b: second, p });
  });
  const step = (need: RepairOption): Repair => {
    const target = need.target as BoardTarget;
    const { minutes, price, harm, weighedMinutes } = need;
    return {
      targets: [target],
      label: repairLabel(target),
      cureChance: alone.get(need) ?? 0,
      minutes: minutes + opening,
      price,
      harm,
      weighedMinutes: weighedMinutes + opening,
    };
  };
  const pairs = together.map(({ a, b, p }): Repair => {
    const [first, second] = [step(a), step(b)];
    return {
      targets: [...first.targets, ...second.targets],
      label: `${first.label}, and ${second.label.charAt(0).toLowerCase()}${second.label.slice(1)}`,
      cureChance: p + first.cureChance + second.cureChance,
      minutes: first.minutes + second.minutes - opening,
      price: first.price + second.price,
      harm: 1 - (1 - first.harm) * (1 - second.harm),
      weighedMinutes: first.weighedMinutes + second.weighedMinutes - opening,
    };
  });
  return [...[...alone.keys()].map(step), ...pairs].filter((r) => r.cureChance > LEAST_CURE).sort(byWorth);
}
