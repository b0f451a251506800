import type { PartRef } from '../identities';
import { formatSeconds, formatTempC } from '../units';
import type { HeatPlan } from './plan';
import type { Purpose } from './purpose';
import type { HeatVerdict } from './verdict-types';

type Words = Pick<HeatVerdict, 'headline' | 'sentence'>;
type Figures = Omit<HeatVerdict, keyof Words | 'holds' | 'breaks'>;

interface PurposeWords {
  readonly never: (ref: PartRef) => string;
  /** The instruction, with the second at which the hand acts. */
  readonly act: (ref: PartRef, at: string) => string;
  /** What follows it when nothing is in the way. */
  readonly calm: (until: string) => string;
  /** What has to get warm. */
  readonly all: string;
  readonly coldest: string;
  /** What happens to those who do not wait. */
  readonly early: string;
}

const WORDS: Readonly<Record<Purpose, PurposeWords>> = {
  lift: {
    never: (ref) => `${ref} does not melt`,
    act: (ref, at) => `Lift ${ref} at ${at}`,
    calm: () => 'not before',
    all: 'All joints are',
    coldest: 'Its coldest joint',
    early: 'Pulling now lifts pads.',
  },
  place: {
    never: (ref) => `${ref} does not settle`,
    act: (ref, at) => `Place ${ref}: settles from ${at}`,
    calm: () => 'then nudge and hold still',
    all: 'All joints are',
    coldest: 'Its coldest joint',
    early: 'Joints that never melted look whole and open later.',
  },
  soften: {
    never: (ref) => `The underfill of ${ref} stays hard`,
    act: (ref, at) => `Clear the edges of ${ref} from ${at}`,
    calm: (until) => `stop at ${until}`,
    all: 'All of the underfill is',
    coldest: 'Its coldest place',
    early: 'Hard underfill tears pads and mask off.',
  },
  site: {
    never: (ref) => `The site of ${ref} stays cool`,
    act: (ref, at) => `Level the pads of ${ref} from ${at}`,
    calm: () => 'while the air stays on',
    all: 'All pads are',
    coldest: 'The coldest pad',
    early: 'A cold ground pad holds braid and iron fast.',
  },
  partBoards: {
    never: () => 'The frame does not melt',
    act: (_, at) => `Lift the upper board at ${at}`,
    calm: () => 'straight up, not before',
    all: 'All joints of the frame are',
    coldest: 'The coldest joint of the frame',
    early: 'Prising now tears the frame.',
  },
  reball: {
    never: (ref) => `The balls of ${ref} do not melt`,
    act: (ref, at) => `Balls of ${ref} molten at ${at}`,
    calm: () => 'let them settle, then air off',
    all: 'All balls are',
    coldest: 'The coldest ball',
    early: 'Balls that never melted fall off.',
  },
};

/** What happens at the marked moment, before its seconds: for the path. */
export const ACT_FINDINGS: Readonly<Record<Purpose, string>> = {
  lift: 'lifts at',
  place: 'settles at',
  soften: 'underfill soft from',
  site: 'pads warm from',
  partBoards: 'upper board lifts at',
  reball: 'balls molten at',
};

/** The headline as an instruction, and a sentence under it. */
export function verdictWords(plan: HeatPlan, v: Figures): Words {
  const words = WORDS[plan.purpose];
  const { partRef } = plan;
  if (v.reachedAtS === null || v.actAtS === null) {
    return {
      headline: words.never(partRef),
      sentence: `${words.coldest} ends at ${formatTempC(v.coldestPeakC)}, ${Math.ceil(v.reachC - v.coldestPeakC)} °C short of ${Math.round(v.reachC)}. More air, less height, a plate below, or longer. ${words.early}`,
    };
  }
  if (v.inTimeC < v.reachC) {
    return {
      headline: `${words.all.replace(/ (are|is)$/, '')} of ${partRef} ready only as the air goes`,
      sentence: `${words.all} above ${Math.round(v.reachC)} °C from ${formatSeconds(v.reachedAtS)}, for ${formatSeconds(v.aboveReachS)}; the hand acts three seconds later, with the air still on. Longer under it, or hotter. ${words.early}`,
    };
  }
  const broken = brokenLimits(plan, v);
  const above = `${words.all} above ${Math.round(v.reachC)} °C from ${formatSeconds(v.reachedAtS)}, for ${formatSeconds(v.aboveReachS)}.`;
  const rest = broken.slice(2).length;
  const [worst] = v.neighbours;
  const nearest = worst
    ? `${worst.ref} ${worst.limited} ${formatTempC(worst.peakC)} of ${Math.round(worst.limitC)}`
    : 'no neighbour limited';
  return {
    headline: `${guarded(plan.covers, words.act(partRef, formatSeconds(v.actAtS)))}, ${broken.length > 0 ? `but ${broken[0].what} gets too hot` : words.calm(formatSeconds(v.untilS ?? v.actAtS))}`,
    sentence:
      broken.length > 0
        ? `${above} But ${broken
            .slice(0, 2)
            .map((b) => b.label)
            .join('; ')}${rest > 0 ? ` and ${rest} more are too hot` : ''}.`
        : `${above} Closest to its limit: ${nearest}.`,
  };
}

/** Guards are laid before the air comes: they come first. */
function guarded(covers: readonly string[], act: string): string {
  if (covers.length === 0) return act;
  const all = covers.length === 1 ? covers[0] : `${covers.slice(0, -1).join(', ')} and ${covers[covers.length - 1]}`;
  return `Cover ${all}, ${act.charAt(0).toLowerCase()}${act.slice(1)}`;
}

/** What gets too hot, the worked part first. */
function brokenLimits({ partRef }: HeatPlan, v: Figures): { what: string; label: string }[] {
  const against = (peakC: number, limitC: number): string =>
    `reaches ${formatTempC(peakC)} against ${Math.round(limitC)}`;
  const own = [
    v.bodyPeakC > v.bodyLimitC && { what: 'it', label: `${partRef} itself ${against(v.bodyPeakC, v.bodyLimitC)}` },
    v.ownLimitC !== null &&
      v.hottestPeakC > v.ownLimitC && {
        what: 'its solder',
        label: `its hottest joint ${against(v.hottestPeakC, v.ownLimitC)}`,
      },
  ].filter((b) => b !== false);
  const others = v.neighbours
    .filter((n) => !n.holds)
    .map((n) => ({ what: n.ref, label: `${n.ref} ${against(n.peakC, n.limitC)} at ${formatSeconds(n.atS)}` }));
  return [...own, ...others];
}
