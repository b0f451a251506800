import type { Board } from '../board';
import { powerNeedOf } from '../diagnose';
import { stemOf } from './line';
import type { DrillEnd, DrillStep } from './play';

/** Where a newcomer's first drill stands, and what is worth trying there. */
export interface TourStop {
  readonly at: number;
  readonly of: number;
  readonly title: string;
  readonly words: string;
  /** What may be typed as it stands; none where the learner chooses. */
  readonly line?: string;
}

const STOPS = {
  look: {
    title: 'The owner’s words come first',
    words: 'They stand above; the board lies below. Before any power one looks into the port. Type this, and Enter.',
  },
  meter: {
    title: 'Now the USB meter',
    words:
      'Volts and amperes at the port, plug one way round: the cheapest thing that says much. Minutes add up at the right.',
  },
  hint: {
    title: 'Ask what the program would do',
    words:
      'It weighs every reading by what it tells for its minutes. A hint costs six of them here; in a real job it is free and always in sight.',
  },
  goOn: {
    title: 'Measure until you know',
    words:
      'Take what was named with Enter, or choose your own point on the board. When you are sure, type replace and the part: it is proven at once.',
  },
  again: {
    title: 'The complaint is still there',
    words: 'A wrong part costs its minutes and its money. Measure on; a hint helps.',
  },
  over: {
    title: 'Each step beside the best one of its moment',
    words:
      'What cost most stands above, in amber. A real job has the same line below, the same drawing, and your own instruments.',
  },
} satisfies Readonly<Record<string, Omit<TourStop, 'at' | 'of' | 'line'>>>;

type StopName = keyof typeof STOPS;
const ORDER = Object.keys(STOPS) as StopName[];

/** What to say next of a drill that doubles as the tour of the program. */
export function tourStop(board: Board, steps: readonly DrillStep[], end: DrillEnd | undefined): TourStop {
  const name = stopOf(steps, end);
  return { at: ORDER.indexOf(name) + 1, of: ORDER.length, ...STOPS[name], line: lineAt(board, name) };
}

function lineAt(board: Board, stop: StopName): string | undefined {
  const [port] = board.ports;
  switch (stop) {
    case 'look':
      return stemOf(board, { kind: 'visualInspection', ref: port.id });
    case 'meter':
      return stemOf(board, { kind: 'usbMeter', port: port.id, side: port.sides[0].side });
    case 'hint':
    case 'again':
      return 'hint';
    case 'goOn':
    case 'over':
      return undefined;
  }
}

function stopOf(steps: readonly DrillStep[], end: DrillEnd | undefined): StopName {
  if (end) return 'over';
  if (steps.at(-1)?.do === 'work') return 'again';
  if (steps.some((s) => s.do === 'hint' || s.do === 'work')) return 'goOn';
  if (steps.some((s) => s.do === 'measure' && powerNeedOf(s.measurement).kind !== 'none')) return 'hint';
  return steps.length > 0 ? 'meter' : 'look';
}
