import type { PartRef } from '../identities';
import type { HeatPlan } from '../heat';
import type { RunMark } from './schema';

/** One thing to do, large enough to read from two metres away. */
export interface RunCard {
  readonly title: string;
  /** How to do it. */
  readonly detail: string;
  /** What the station is set to, where there is air. */
  readonly air?: { readonly setC: number; readonly flowLpm: number; readonly heightMm: number };
  readonly caution?: string;
  /** How long it lasts; null where the hand decides. */
  readonly seconds: number | null;
  /** Goes on by itself when its time is over. */
  readonly goesOn: boolean;
  /** Under hot air: pausing and aborting mean something. */
  readonly hot: boolean;
  readonly marks: readonly RunMark[];
  /** A gate is confirmed, never passed over. */
  readonly gate?: boolean;
}

export interface RunContext {
  readonly ref: PartRef;
  readonly what: string;
  /** Where the underfill is to be cleared, in order, with the way of the tool. */
  readonly edges?: readonly string[];
  /** What to measure the moment the part is off, in words. */
  readonly measure?: string;
  /** Where the nozzle stands beside the middle of the part, in words. */
  readonly beside?: string;
  /** True where large ground pads hold on longest. */
  readonly centrePad: boolean;
}

const check = (title: string, detail: string, more: Partial<RunCard> = {}): RunCard => ({
  ...{ title, detail, seconds: null, goesOn: false, hot: false, marks: [] },
  ...more,
});

/** The cards of a run: what has to be true first, the plan's steps on the clock, and what comes after. */
export function runCards(plan: HeatPlan, context: RunContext): RunCard[] {
  return [...before(plan, context), ...onTheClock(plan, context), ...after(plan, context)];
}

function before({ purpose, covers, plateSetC }: HeatPlan, { ref, beside }: RunContext): RunCard[] {
  const lifts = purpose === 'lift';
  const places = purpose === 'place';
  return [
    check(
      'Pack out, strap on, extraction running',
      'Nothing flammable near, no face over the work, gloves by the hand.',
      {
        caution: 'A lithium pack is never heated.',
        gate: true,
      },
    ),
    ...(lifts
      ? [
          check(
            `Mark pin 1 of ${ref} on the board`,
            'Then photograph it with its neighbours. Without both it is not lifted.',
            {
              gate: true,
            },
          ),
        ]
      : []),
    ...(places
      ? [
          check(`Pin 1 of ${ref} at the mark`, 'Compare with the photograph. Align by two edges, tack with flux.', {
            gate: true,
            caution: 'A part the wrong way round shorts at first power.',
          }),
        ]
      : []),
    ...(covers.length > 0 ? [check(`Cover ${covers.join(', ')}`, 'Heat tape or metal, edges pressed down.')] : []),
    ...(beside === undefined ? [] : [check(`Nozzle ${beside}`, 'Look along it once, cold, and keep a mark in sight.')]),
    ...(plateSetC === null
      ? []
      : [check(`Plate at ${plateSetC} °C, board on it`, 'The board lies flat on its holders before the air comes.')]),
  ];
}

/** Words on the last hot step, by purpose. */
const CUES: Readonly<
  Record<
    HeatPlan['purpose'],
    { readonly detail: string; readonly caution?: string; readonly marks: readonly RunMark[] }
  >
> = {
  lift: {
    detail: 'Touch it from the side. Only when it swims and comes back, lift straight up.',
    caution: 'Not swimming: do not pull. Never lever it sideways.',
    marks: ['swims'],
  },
  place: {
    detail: 'Watch it snap or settle. Nudge once, hold a flat part down once, then hands off.',
    caution: 'Too much flux floats the part.',
    marks: ['seated'],
  },
  soften: {
    detail: 'Clear what has softened, in the order below.',
    caution: 'Solder that shines or moves: air away.',
    marks: ['softened'],
  },
  site: { detail: 'Level with the iron now.', marks: [] },
  partBoards: {
    detail: 'Lift the upper board straight up when it swims.',
    caution: 'Not swimming: do not pull.',
    marks: ['swims'],
  },
  reball: { detail: 'Watch the balls round off, all of them.', marks: ['seated'] },
};

/** A station that is hotter than it is known to be melts early; a light touch harms nothing. Common practice, no source. */
const EARLY_WORDS = 'From here on touch it lightly every few seconds: swims it already, lift.';

function onTheClock(plan: HeatPlan, { edges, centrePad, ref }: RunContext): RunCard[] {
  const hot = plan.steps.filter((s) => s.airSetC !== null);
  const last = hot.length - 1;
  return plan.steps.map((step) => {
    const at = hot.indexOf(step);
    if (at < 0) {
      return check('Air off, hands off', `${ref} and its joints freeze untouched.`, {
        ...{ seconds: step.durationS, goesOn: true },
        caution: 'Hot: no solvent, nothing laid on it.',
      });
    }
    const cue = CUES[plan.purpose];
    const ends = at === last;
    const ground =
      plan.purpose === 'lift' && centrePad && ends ? ' The centre pad and large ground pads let go last.' : '';
    return {
      title: sentence(step.name),
      detail: ends
        ? `${cue.detail}${ground}${edges ? ` ${edges.join('; ')}.` : ''}`
        : at === last - 1 && plan.purpose === 'lift'
          ? EARLY_WORDS
          : '',
      air: { setC: step.airSetC!, flowLpm: step.flowLpm, heightMm: step.heightMm },
      caution: ends ? cue.caution : undefined,
      seconds: step.durationS,
      goesOn: !ends,
      hot: true,
      marks: at >= last - 1 ? cue.marks : [],
    };
  });
}

function after({ purpose }: HeatPlan, { ref, measure }: RunContext): RunCard[] {
  if (purpose === 'lift') {
    return [
      check(
        `Look under ${ref} and at its pads`,
        'Lifted or missing pads go into the map now, while the picture is fresh.',
      ),
      check('Measure now, with the part off', measure ?? 'Is the short gone with it?', {
        caution: 'No supply on the board while measuring ohms.',
      }),
    ];
  }
  if (purpose === 'place') {
    return [
      check('Cool, then clean and look', 'Flat? Every side wetted? Heights at the corners go into the flatness check.'),
    ];
  }
  return [check('Cool, then look', 'What changed under the microscope?')];
}

const sentence = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);

/** What to do with the heat while a run stands still. Common practice, no source. */
export const pauseWords = (card: RunCard): string =>
  card.hot
    ? 'Nozzle up and away, tool out; the plate stays on. Longer than a few seconds: go back a step before you go on.'
    : 'The clock stands.';

/** A hot card that goes on so much longer than planned heats what nobody computed, s. Engineering estimate. */
export const LONG_OVER_S = 15;

/** Said when the hand waits too long under the air. Common practice, no source. */
export const OVER_WORDS = 'Long over its time: air away. The board and its neighbours go on heating.';

/** What to do with the heat when a run is given up. Common practice, no source. */
export const abortWords = (card: RunCard): string =>
  card.hot
    ? 'Air off. Plate off. Do not pull, do not move the board: let it freeze where it lies, then look.'
    : 'Plate off if it is on. Leave the board where it lies until it is cold.';
