import { partByRef, type Board } from '../board';
import { boardMeasurements, entryStem, OUTSIDE_THINGS, type Measurement } from '../diagnose';
import { fail, ok, type Result } from '../result';
import type { DrillStep } from './play';

type Work = Extract<DrillStep, { do: 'work' }>['work'];

/** Works on a part by the word that asks for them. */
const PART_WORKS: Readonly<Record<string, 'part' | 'image' | 'joints' | 'contacts'>> = {
  replace: 'part',
  rewrite: 'image',
  touch: 'joints',
  clean: 'contacts',
};

/** What can be typed in a drill, for the list of keys. */
export const DRILL_FORMS: readonly { readonly example: string; readonly help: string }[] = [
  {
    example: 'tp7 ohm',
    help: 'takes a reading: the place, and what is measured there; the instrument gives the value',
  },
  { example: 'usb a', help: 'the USB meter at the port, this way round' },
  { example: 'look j1', help: 'the port under the microscope' },
  { example: 'replace u4', help: 'a new part, and the proof' },
  { example: 'rewrite u9', help: 'its image, and the proof' },
  { example: 'touch u4', help: 'its joints, and the proof' },
  { example: 'clean j1', help: 'its contacts, and the proof' },
  { example: 'wire aon33', help: 'a wire past the cracked trace of a rail, and the proof' },
  { example: 'swap charger', help: 'charger, cable or pack against a known good one, and the proof' },
  { example: 'restore', help: 'what the device runs on, and the proof' },
  { example: 'hint', help: 'what the program would do; it costs six minutes' },
  { example: 'send on', help: 'no listed fault explains it' },
  { example: 'give up', help: 'shows what it was' },
];

const WORDS: Readonly<Record<string, DrillStep>> = {
  hint: { do: 'hint' },
  'send on': { do: 'sendOn' },
  'give up': { do: 'giveUp' },
  restore: { do: 'work', work: { kind: 'software' } },
};

/** Every reading that a board offers, by what is typed for it; where two begin alike, the one that the board offers first. */
function drillStems(board: Board, also: readonly Measurement[] = []): ReadonlyMap<string, Measurement> {
  const stems = new Map<string, Measurement>();
  for (const m of [...also, ...boardMeasurements(board)]) {
    const stem = stemOf(board, m);
    if (!stems.has(stem)) stems.set(stem, m);
  }
  return stems;
}

export const stemOf = (board: Board, m: Measurement): string => entryStem(board, m).trim().toLowerCase();

/**
 * A line of a drill: a reading without its value, a work, or one of the words.
 * @param also readings that only a hint names.
 */
export function readDrillLine(board: Board, text: string, also: readonly Measurement[] = []): Result<DrillStep> {
  const line = text.trim().toLowerCase().replace(/\s+/g, ' ');
  if (WORDS[line]) return ok(WORDS[line]);
  const [head, name, ...rest] = line.split(' ');
  if (name !== undefined && rest.length === 0) {
    const work = workOf(board, head, name);
    if (typeof work === 'string') return fail(work);
    if (work) return ok({ do: 'work', work });
  }
  const measurement = drillStems(board, also).get(line);
  return measurement
    ? ok({ do: 'measure', measurement })
    : fail(
        `Expected a reading without its value, such as “usb a”, or a work, such as “replace u4”; got “${text.trim()}”.`,
      );
}

/** The work, a sentence why there is none, or nothing where the word asks for none. */
function workOf(board: Board, head: string, name: string): Work | string | undefined {
  const kind = PART_WORKS[head];
  if (kind) {
    const part = partByRef(board, name.toUpperCase());
    return part ? { kind, ref: part.ref } : `Expected a part of this board; got “${name}”.`;
  }
  if (head === 'wire') {
    const rail = board.rails.find((r) => r.id.toLowerCase() === name);
    return rail ? { kind: 'rail', rail: rail.id } : `Expected a rail of this board; got “${name}”.`;
  }
  if (head !== 'swap') return undefined;
  const what = OUTSIDE_THINGS.find((t) => t === name);
  return what ? { kind: 'outside', what } : `Expected ${OUTSIDE_THINGS.join(', ')}; got “${name}”.`;
}

/** Lines that begin as typed, readings first. */
export function completeDrillLine(board: Board, text: string): string[] {
  const begun = text.trimStart().toLowerCase();
  if (begun === '') return [];
  const works = Object.keys(PART_WORKS).flatMap((w) => board.parts.map((p) => `${w} ${p.ref.toLowerCase()}`));
  return [...drillStems(board).keys(), ...works, ...Object.keys(WORDS)].filter((l) => l.startsWith(begun)).slice(0, 8);
}
