import type { Slot } from './problem';
import { workingDay } from './working-day';

const slot = (job: string, startMin: number, endMin: number, person: string | null): Slot => ({
  ...{ job, step: `${job} ${startMin}`, startMin, endMin, person },
});
/** Two hours are left of this day, with a break; then night, a day of eight hours, and another night. */
const CLOSED = [
  [45, 75],
  [120, 1020],
  [1500, 2460],
] as const;
const names = (slots: readonly Slot[]): string[] => slots.map((s) => s.step);

test('what each does until the shop closes, in order; a break does not end the day', () => {
  const slots = [slot('b', 75, 110, 'Mira'), slot('a', 0, 40, 'Mira'), slot('c', 1020, 1050, 'Mira')];
  const day = workingDay(slots, ['Mira', 'Ansel'], CLOSED);
  expect([day.fromMin, day.toMin]).toEqual([0, 120]);
  expect(day.people.map(({ person, slots: own }) => [person, names(own)])).toEqual([
    ['Mira', ['a 0', 'b 75']],
    ['Ansel', []],
  ]);
});

test('at night it is the next day’s, however short what is left of the night is', () => {
  for (const night of [30, 700]) {
    const closed = [
      [0, night],
      [night + 480, night + 1400],
    ] as const;
    const slots = [slot('a', night, night + 20, 'Mira'), slot('b', night + 1400, night + 1420, 'Mira')];
    const day = workingDay(slots, ['Mira'], closed);
    expect([day.fromMin, day.toMin]).toEqual([night, night + 480]);
    expect(names(day.people[0].slots)).toEqual(['a ' + night]);
  }
});

test('what runs by itself is told by its end, with what runs on from before and over night; what takes no time is not', () => {
  const slots = [
    slot('cools', 100, 140, null),
    slot('soaks', 0, 30, null),
    slot('done', 10, 10, null),
    slot('bakes', 1100, 1400, null),
  ];
  expect(names(workingDay(slots, ['Mira'], CLOSED).passive)).toEqual(['soaks 0', 'cools 100']);
});

test('a shop that never closes has days of ten hours', () => {
  const day = workingDay([slot('a', 599, 700, 'Mira'), slot('b', 600, 700, 'Mira')], ['Mira'], []);
  expect(day.toMin).toBe(600);
  expect(names(day.people[0].slots)).toEqual(['a 599']);
});
