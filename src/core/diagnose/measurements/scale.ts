import { normalCdf, normalPdf, type Random } from '../../math';
import { formatAmp, formatDrop, formatOhm, formatVolt } from '../../units';
import type { Alternative } from '../prediction';
import { unsteadyLabels, type LookFinding, type Value } from '../value';

/** What a class of readings is centred on, or the answer where it is no figure. */
export interface OutcomeCentre {
  readonly means: readonly number[];
  readonly answer?: Value;
  /** True for readings that are like none of the others. */
  readonly unlike?: boolean;
}

/**
 * How the answers of a kind are read, compared and drawn: ohms, drops, volts, the meter's pair, yes or no, a named answer.
 * A kind names one scale.
 */
export interface Scale {
  /** Values that can answer it. */
  readonly values: readonly Value['kind'][];
  /** A value as the bench reads it. */
  readonly label: (value: Value) => string;
  /** A class of readings in words: `near 1.6 Ω`. Not asked where the class is an answer. */
  readonly outcomeLabel: (centre: OutcomeCentre) => string;
  /** Density of a value where one alternative is true; per decade of ohms, per volt, per volt and ampere. */
  readonly density: (value: Value, alt: Alternative) => number;
  /**
   * Density of a reading that may be anything, in the units of {@link density}. @param sound what a sound board reads.
   * Absent where the answers themselves say it.
   */
  readonly broad?: (value: Value, sound: number) => number;
  /** Density of a wrong reading: no contact, or evenly over what the instrument can show. */
  readonly slip: (value: Value) => number;
  /** Density of a reading where the same test read something before and nothing has changed. */
  readonly again: (value: Value, before: Value) => number;
  /** A reading drawn from an alternative, or a wrong one. */
  readonly sample: (alt: Alternative, slip: boolean, random: Random) => Value;
  /** The value that is exactly on an alternative. */
  readonly ideal: (means: readonly number[]) => Value;
  /** A figure of it, for intervals of good boards. */
  readonly figureLabel: (figure: number) => string;
}

/** Hand meters read no lower than their leads and show OL from here up, as log10 ohm. Common practice. */
export const LEADS_OHM = 0.1;
export const OPEN_LOG_OHM = 6;
/** What a diode test shows for no path is taken as this many volts. Common practice. */
export const DROP_OPEN_V = 2;
/** No silicon junction of a sound board reads as much in diode mode, V. Common practice. */
const DROP_TOP_V = 1.6;
/** A continuity beep sounds below about 30 Ω (common practice, no source). */
const BEEP_LOG_OHM = Math.log10(30);

/** What an instrument can show: ohms as log10, diode mode and volts in volts, the meter's amps. Common practice. */
const LOG_OHM_RANGE: readonly [number, number] = [-1, OPEN_LOG_OHM];
const DROP_RANGE_V: readonly [number, number] = [0, DROP_OPEN_V];
const VOLT_RANGE: readonly [number, number] = [0, 25];
const AMP_RANGE: readonly [number, number] = [0, 3];
const width = ([low, high]: readonly [number, number]): number => high - low;

/**
 * What an unlisted fault may read: ohms as log10, diode mode up to its top with a share of open, a voltage up to so many
 * times its level with a share of nothing. The spreads are those of readings that are open or nothing. Engineering estimates.
 */
const BROAD = {
  logOhm: [-1, 7] as const,
  openDecades: 0.1,
  dropV: 1.2,
  open: 0.2,
  openV: 0.012,
  levels: 1.2,
  levelV: 5,
  zero: 0.3,
  zeroV: 0.03,
};

/** Of the wrong readings of a probe so many show no contact. Engineering estimate. */
const NO_CONTACT = 0.3;

/** Spread of a reading that is taken again, by scale. Engineering estimates. */
const AGAIN = { decades: 0.1, dropV: 0.02, floorV: 0.05, voltShare: 0.02, amps: 0.05 };

/** A resistance as log10 of its ohms; undefined where it was no figure. */
const decadesOf = (value: Value): number | undefined => {
  if (value.kind === 'open') return OPEN_LOG_OHM;
  if (value.kind === 'beep') return BEEP_LOG_OHM - 1;
  return value.kind === 'figure' ? Math.min(OPEN_LOG_OHM, Math.log10(Math.max(value.value, LEADS_OHM))) : undefined;
};

const dropOf = (value: Value): number | undefined => {
  if (value.kind === 'open') return DROP_OPEN_V;
  if (value.kind !== 'figure') return undefined;
  return value.value >= DROP_TOP_V ? DROP_OPEN_V : value.value;
};

/** log10 of what the meter shows for a true resistance. */
export const shownLogOhm = (ohm: number): number => Math.min(OPEN_LOG_OHM, Math.log10(Math.max(0, ohm) + LEADS_OHM));

/** Doubt of the leads, ohm. Engineering estimate. */
const LEADS_SD_OHM = 0.05;
/** By how much the leads widen a low reading, log10 ohm. */
export const lowEndSpread = (ohm: number): number => LEADS_SD_OHM / (Math.max(0, ohm) + LEADS_OHM);

/** A normal draw by Box and Muller (1958). */
const normal = (random: Random): number => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());

function draw(
  alt: Alternative,
  dimension: number,
  [low, high]: readonly [number, number],
  slip: boolean,
  random: Random,
): number {
  return slip ? low + random() * (high - low) : alt.means[dimension] + alt.sds[dimension] * normal(random);
}

/** Values that are no figures read the same on every scale. */
function plainLabel(value: Value): string {
  switch (value.kind) {
    case 'open':
      return 'open';
    case 'beep':
      return 'beeps';
    case 'pass':
      return 'good';
    case 'fail':
      return 'bad';
    case 'choice':
      return value.choice;
    case 'pair':
      return `${formatVolt(value.volts)}, ${formatAmp(value.amps)}`;
    case 'figure':
      return String(value.value);
  }
}

/** A resistance below this is "next to nothing" in words, and from the second on "open", ohm. */
const NEXT_TO_NOTHING_OHM = 0.25;
const OPEN_FROM_OHM = 9e5;

export const resistanceScale: Scale = {
  values: ['figure', 'open', 'beep'],
  label: (value) => (value.kind === 'figure' ? formatOhm(value.value) : plainLabel(value)),
  outcomeLabel({ means }) {
    const ohm = 10 ** means[0];
    if (ohm >= OPEN_FROM_OHM) return 'open';
    return ohm < NEXT_TO_NOTHING_OHM ? 'next to nothing' : `near ${formatOhm(ohm)}`;
  },
  density(value, { means: [mean], sds: [sd] }) {
    if (value.kind === 'beep') return normalCdf(BEEP_LOG_OHM, mean, sd);
    if (value.kind === 'open') return normalPdf(OPEN_LOG_OHM, mean, sd);
    if (value.kind !== 'figure') return 0;
    return normalPdf(Math.min(OPEN_LOG_OHM, Math.log10(Math.max(value.value, LEADS_OHM))), mean, sd);
  },
  // Log-uniform from 0.1 Ω to 10 MΩ; what a meter cannot show reads open, and is dense as an open reading is.
  broad(value) {
    const decades = BROAD.logOhm[1] - BROAD.logOhm[0];
    if (value.kind === 'beep') return (BEEP_LOG_OHM - BROAD.logOhm[0]) / decades;
    const open = ((BROAD.logOhm[1] - OPEN_LOG_OHM) / decades) * normalPdf(0, 0, BROAD.openDecades);
    return value.kind === 'open' || (value.kind === 'figure' && Math.log10(value.value) >= OPEN_LOG_OHM)
      ? open
      : 1 / decades;
  },
  slip(value) {
    const open = decadesOf(value) === OPEN_LOG_OHM ? NO_CONTACT * normalPdf(0, 0, BROAD.openDecades) : 0;
    return open + (1 - NO_CONTACT) / width(LOG_OHM_RANGE);
  },
  again(value, before) {
    const [now, then] = [decadesOf(value), decadesOf(before)];
    return now === undefined || then === undefined ? 0 : normalPdf(now, then, AGAIN.decades);
  },
  sample(alt, slip, random) {
    if (slip && random() < NO_CONTACT) return { kind: 'open' };
    const logOhm = draw(alt, 0, LOG_OHM_RANGE, slip, random);
    return logOhm >= OPEN_LOG_OHM ? { kind: 'open' } : { kind: 'figure', value: 10 ** logOhm };
  },
  ideal: ([mean]) => (mean >= OPEN_LOG_OHM ? { kind: 'open' } : { kind: 'figure', value: 10 ** mean }),
  figureLabel: formatOhm,
};

export const dropScale: Scale = {
  values: ['figure', 'open'],
  label: (value) => (value.kind === 'figure' ? formatDrop(value.value) : plainLabel(value)),
  outcomeLabel: ({ means }) => (means[0] >= DROP_OPEN_V - 0.1 ? 'open' : `near ${formatDrop(means[0])}`),
  density(value, { means: [mean], sds: [sd] }) {
    // Meters differ in what they show for no path: from the top of their range on it is none.
    if (value.kind === 'open' || (value.kind === 'figure' && value.value >= DROP_TOP_V))
      return normalPdf(DROP_OPEN_V, mean, sd);
    return value.kind === 'figure' ? normalPdf(value.value, mean, sd) : 0;
  },
  broad(value) {
    const isOpen = value.kind === 'open' || (value.kind === 'figure' && value.value >= DROP_TOP_V);
    return isOpen ? BROAD.open * normalPdf(0, 0, BROAD.openV) : (1 - BROAD.open) / BROAD.dropV;
  },
  slip(value) {
    const open = dropOf(value) === DROP_OPEN_V ? NO_CONTACT * normalPdf(0, 0, BROAD.openV) : 0;
    return open + (1 - NO_CONTACT) / width(DROP_RANGE_V);
  },
  again(value, before) {
    const [now, then] = [dropOf(value), dropOf(before)];
    return now === undefined || then === undefined ? 0 : normalPdf(now, then, AGAIN.dropV);
  },
  sample(alt, slip, random) {
    if (slip && random() < NO_CONTACT) return { kind: 'open' };
    const drop = draw(alt, 0, DROP_RANGE_V, slip, random);
    return drop >= DROP_TOP_V ? { kind: 'open' } : { kind: 'figure', value: drop };
  },
  ideal: ([mean]) => ({ kind: 'figure', value: mean }),
  figureLabel: formatDrop,
};

/** A voltage that comes and goes counts as gone: what takes it away at times is what would take it away for good. */
const levelOf = ({ value, swings }: Extract<Value, { kind: 'figure' }>): number => (swings ? 0 : value);

/** Below this a voltage is "next to nothing" in words, V. */
const NEXT_TO_NOTHING_V = 0.2;

export const voltageScale: Scale = {
  values: ['figure'],
  label: (value) =>
    value.kind === 'figure' ? [formatVolt(value.value), ...unsteadyLabels(value)].join(', ') : plainLabel(value),
  outcomeLabel: ({ means }) => (means[0] < NEXT_TO_NOTHING_V ? 'next to nothing' : `near ${formatVolt(means[0])}`),
  density: (value, { means: [mean], sds: [sd] }) => (value.kind === 'figure' ? normalPdf(levelOf(value), mean, sd) : 0),
  broad(value, sound) {
    if (value.kind !== 'figure') return 0;
    const top = BROAD.levels * (sound > NEXT_TO_NOTHING_V ? sound : BROAD.levelV);
    const level = levelOf(value);
    const within = level >= 0 && level <= top ? (1 - BROAD.zero) / top : 0;
    return BROAD.zero * normalPdf(level, 0, BROAD.zeroV) + within;
  },
  slip: () => 1 / width(VOLT_RANGE),
  again(value, before) {
    if (value.kind !== 'figure' || before.kind !== 'figure') return 0;
    return normalPdf(levelOf(value), levelOf(before), AGAIN.floorV + AGAIN.voltShare * Math.abs(levelOf(before)));
  },
  sample: (alt, slip, random) => ({ kind: 'figure', value: draw(alt, 0, VOLT_RANGE, slip, random) }),
  ideal: ([mean]) => ({ kind: 'figure', value: mean }),
  figureLabel: formatVolt,
};

/** Volts and amps of a meter in line. */
export const meterScale: Scale = {
  values: ['pair'],
  label: plainLabel,
  outcomeLabel: ({ means }) => `${formatVolt(means[0])} and ${formatAmp(means[1])}`,
  density: (value, { means, sds }) =>
    value.kind === 'pair' ? normalPdf(value.volts, means[0], sds[0]) * normalPdf(value.amps, means[1], sds[1]) : 0,
  slip: () => 1 / (width(VOLT_RANGE) * width(AMP_RANGE)),
  again: (value, before) =>
    value.kind === 'pair' && before.kind === 'pair'
      ? normalPdf(value.volts, before.volts, AGAIN.floorV + AGAIN.voltShare * before.volts) *
        normalPdf(value.amps, before.amps, AGAIN.amps)
      : 0,
  sample(alt, slip, random) {
    const [volts, amps] = [VOLT_RANGE, AMP_RANGE].map((range, i) => Math.max(0, draw(alt, i, range, slip, random)));
    return { kind: 'pair', volts, amps };
  },
  ideal: (means) => ({ kind: 'pair', volts: means[0], amps: means[1] }),
  figureLabel: formatVolt,
};

/** Scales without figures have no alternatives to be dense around. */
const WITHOUT_FIGURES = {
  density: () => 0,
  slip: () => 0,
  // Yes or no, or one of several: the same as before, or not.
  again: (value: Value, before: Value) => Number(plainLabel(value) === plainLabel(before)),
  outcomeLabel: () => '',
  sample: (): Value => ({ kind: 'open' }),
  ideal: (): Value => ({ kind: 'open' }),
  figureLabel: String,
} as const;

/** What makes a port doubtful, in words. */
export const LOOK_FINDING_LABELS: Readonly<Record<LookFinding, string>> = {
  pins: 'crossed or pushed-back pins',
  tongue: 'a cracked tongue',
  corrosion: 'corrosion',
  liquid: 'liquid marks',
  shell: 'a loose shell',
  debris: 'debris',
};
/** What was seen, in words; empty where nothing was named. */
export const findingsLabel = (seen: readonly LookFinding[]): string =>
  seen.map((finding) => LOOK_FINDING_LABELS[finding]).join(', ');

/** Yes or no, with the kind's own words for it. */
export const verdictScale = (passes: string, fails: string): Scale => ({
  ...WITHOUT_FIGURES,
  values: ['pass', 'fail'],
  label(value) {
    if (value.kind === 'pass') return passes;
    if (value.kind !== 'fail') return plainLabel(value);
    return findingsLabel(value.seen ?? []) || fails;
  },
});

/** One of several named answers; a name without words of its own is shown as it is. */
export const choiceScale = (labels: Readonly<Record<string, string>> = {}): Scale => ({
  ...WITHOUT_FIGURES,
  values: ['choice'],
  label: (value) => (value.kind === 'choice' ? (labels[value.choice] ?? value.choice) : plainLabel(value)),
});
