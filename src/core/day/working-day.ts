import type { Slot } from './problem';

/** Nobody works for longer than this only at night and on days off, minutes; shorter is a break. Engineering estimate. */
const NIGHT_MIN = 180;
/** How long a day is taken for where nothing closes it, minutes. */
const LONGEST_DAY_MIN = 10 * 60;

/** A day at the benches as it is worked off, minutes from now. */
export interface WorkingDay {
  readonly fromMin: number;
  readonly toMin: number;
  /** What each person does, in order; people without work that day have an empty list. */
  readonly people: readonly { readonly person: string; readonly slots: readonly Slot[] }[];
  /** What runs by itself and ends that day, the earliest end first. */
  readonly passive: readonly Slot[];
}

/**
 * The working day that a plan is in, or the next one where it is night.
 * @param closed from and to of every span in which nobody works, ascending, minutes from now.
 */
export function workingDay(
  slots: readonly Slot[],
  people: readonly string[],
  closed: readonly (readonly [number, number])[],
): WorkingDay {
  const nights = closed.filter(([from, to]) => to - from >= NIGHT_MIN || from === 0);
  const fromMin = nights[0]?.[0] === 0 ? nights[0][1] : 0;
  const toMin = nights.find(([from]) => from > fromMin)?.[0] ?? fromMin + LONGEST_DAY_MIN;
  const isToday = (min: number): boolean => min >= fromMin && min < toMin;
  const lasting = slots.filter((s) => s.endMin > s.startMin);
  return {
    ...{ fromMin, toMin },
    people: people.map((person) => ({
      person,
      slots: lasting.filter((s) => s.person === person && isToday(s.startMin)).sort((a, b) => a.startMin - b.startMin),
    })),
    passive: lasting
      .filter((s) => s.person === null && s.endMin >= fromMin && s.startMin < toMin)
      .sort((a, b) => a.endMin - b.endMin),
  };
}
