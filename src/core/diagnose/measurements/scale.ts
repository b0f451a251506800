import { normalCdf, normalPdf, type Random } from '../../math';
import { formatAmp, formatDrop, formatOhm, formatVolt } from '../../units';
import type { Alternative } from '../prediction';
import { unsteadyLabels, type LookFinding, type Value } from '../value';

/** What a class of readings is centred on, or the answer where it is no figure. */
export interface OutcomeCentre {
  readonly means: readonly number[];
  readonly answer?: Value;
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
  /** Density of a wrong reading: evenly over what the instrument can show. */
  readonly slipDensity: number;
  /** A reading drawn from an alternative; a slip falls evenly over what the instrument can show. */
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
/** A continuity beep sounds below about 30 Ω (common practice, no source). */
const BEEP_LOG_OHM = Math.log10(30);

/** What an instrument can show: ohms as log10, diode mode and volts in volts, the meter's amps. Common practice. */
const LOG_OHM_RANGE: readonly [number, number] = [-1, OPEN_LOG_OHM];
const DROP_RANGE_V: readonly [number, number] = [0, DROP_OPEN_V];
const VOLT_RANGE: readonly [number, number] = [0, 25];
const AMP_RANGE: readonly [number, number] = [0, 3];
const width = ([low, high]: readonly [number, number]): number => high - low;

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
  slipDensity: 1 / width(LOG_OHM_RANGE),
  sample(alt, slip, random) {
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
    if (value.kind === 'open') return normalPdf(DROP_OPEN_V, mean, sd);
    return value.kind === 'figure' ? normalPdf(value.value, mean, sd) : 0;
  },
  slipDensity: 1 / width(DROP_RANGE_V),
  sample: (alt, slip, random) => ({ kind: 'figure', value: draw(alt, 0, DROP_RANGE_V, slip, random) }),
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
  slipDensity: 1 / width(VOLT_RANGE),
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
  slipDensity: 1 / (width(VOLT_RANGE) * width(AMP_RANGE)),
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
  slipDensity: 0,
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
