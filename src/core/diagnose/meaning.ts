import { partByRef, type Board } from '../board';
import { judgeJoint, judgePin, portPins } from '../port';
import { formatDrop, formatOhm, formatVolt } from '../units';
import type { Fault } from './faults';
import { predictionInterval, type ReferenceTable } from '../reference';
import { measurementId, type Measurement, type Value } from './measurement';
import { METER_WORDS, readMeter } from './meter';
import type { Shape } from './prediction';
import { OPEN_LOG_OHM, shownLogOhm, type Predictor } from './predict';

/** What a reading says about its point, before any part is blamed. */
export interface Meaning {
  readonly words: string;
  readonly state: 'good' | 'bad' | 'plain';
}

/** A board on which nothing is wrong. */
export const SOUND: Fault = { id: 'sound', ref: '', words: 'sound', weight: 0, effects: [] };

/** A short, as a hand meter shows it, ohm. Common practice. */
export const SHORT_BELOW_OHM = 10;
/** Resistances within this share of the expected one count as normal; capacitors and chips vary that much. Engineering estimate. */
const NORMAL_DECADES = 0.5;
/** Diode-mode drops this close to normal count as normal, volts; about three of the usual spreads. */
const NORMAL_DROP_V = 0.035;
/** Below this a drop is a short; below the second the sign is wrong rather than the zero. Common practice. */
const DROP_SHORTED_V = 0.06;
const WRONG_SIGN_V = -0.05;

const good = (words: string): Meaning => ({ words, state: 'good' });
const bad = (words: string): Meaning => ({ words, state: 'bad' });

/** Says what a reading means on this board in its present state, compared with a sound one. */
export function meaningOf(
  predictor: Predictor,
  m: Measurement,
  value: Value,
  absent: ReadonlySet<string>,
  references: ReferenceTable = {},
): Meaning {
  return againstReferences(plainMeaning(predictor, m, value, absent, references), m, value, absent, references);
}

function plainMeaning(
  predictor: Predictor,
  m: Measurement,
  value: Value,
  absent: ReadonlySet<string>,
  references: ReferenceTable,
): Meaning {
  const { board } = predictor;
  switch (m.kind) {
    case 'usb':
      return value.kind === 'pair' ? meterMeaning(board, m.port, value.volts, value.amps) : plain();
    case 'volts':
      return value.kind === 'figure' ? voltsMeaning(board, m.rail, value) : plain();
    case 'drop':
      return dropMeaning(healthyMean(predictor, m, absent), value);
    case 'pin':
      return pinMeaning(board, m, value, references);
    case 'joint':
      return jointMeaning(board, m, value, references);
    case 'shape':
      return value.kind === 'shape' ? shapeMeaning(value.shape) : plain();
    case 'talk':
      return value.kind === 'talk' ? { words: '', state: value.stop === 'contract' ? 'good' : 'bad' } : plain();
    case 'tester':
      return value.kind === 'pass'
        ? { words: 'a hint, not a verdict', state: 'plain' }
        : { words: 'a hint, not a verdict: a bad connector fools it', state: 'plain' };
    case 'swap':
      return value.kind === 'pass'
        ? good(`the ${m.what} used before is at fault`)
        : { words: `not the ${m.what}`, state: 'plain' };
    case 'look':
      return value.kind === 'pass' ? good('sound to the eye') : bad('do not power it before it is cleaned or replaced');
    case 'works':
      return value.kind === 'pass' ? good('it clears what it uses') : bad('something it uses is at fault');
    case 'image':
      return value.kind === 'pass' ? good('its checks hold') : bad('its checks fail');
    case 'ohm':
    case 'lift':
      return ohmMeaning(healthyMean(predictor, m, absent), value, m, board);
    case 'through':
      return throughMeaning(healthyMean(predictor, m, absent), value);
  }
}

/**
 * Where good boards of this revision were read, their prediction interval decides in place of the board file: what lies in it
 * is normal, what lies outside is not. With a part off the board the references do not speak of it.
 */
function againstReferences(
  base: Meaning,
  m: Measurement,
  value: Value,
  absent: ReadonlySet<string>,
  references: ReferenceTable,
): Meaning {
  if ((m.kind !== 'ohm' && m.kind !== 'drop' && m.kind !== 'volts') || value.kind !== 'figure' || absent.size > 0)
    return base;
  const stats = references[measurementId(m)];
  const interval = stats && predictionInterval(stats);
  if (!interval) return base;
  // Good boards were read where they were steady.
  const isUnsteady = value.swings === true || value.ripplePpV !== undefined;
  if (isUnsteady && base.state === 'bad') return base;
  const show = m.kind === 'ohm' ? formatOhm : m.kind === 'drop' ? formatDrop : formatVolt;
  if (value.value >= interval.low && value.value <= interval.high) return good(`as ${stats.n} good boards read`);
  // A clear fault keeps its own words.
  if (base.state === 'bad') return base;
  return bad(`not as ${stats.n} good boards: ${show(Math.max(0, interval.low))} to ${show(interval.high)}`);
}

function shapeMeaning(shape: Shape): Meaning {
  if (shape === 'steady') return good('nothing comes and goes');
  if (shape === 'swing') return bad('the boost cannot settle: often a bad configuration image');
  if (shape === 'restart') return bad('something the system requires is not connected');
  return bad('the processor’s side, not the port');
}

function pinMeaning(
  board: Board,
  m: Extract<Measurement, { kind: 'pin' }>,
  value: Value,
  references: ReferenceTable,
): Meaning {
  const pin = portPins(board, m.port).find((p) => p.pin === m.pin);
  if (!pin || (value.kind !== 'figure' && value.kind !== 'open')) return plain();
  const { words, state } = judgePin(board, pin, value, undefined, references[measurementId(m)]);
  return { words, state };
}

function jointMeaning(
  board: Board,
  m: Extract<Measurement, { kind: 'joint' }>,
  value: Value,
  references: ReferenceTable,
): Meaning {
  const net = partByRef(board, m.ref)?.pins[m.pin];
  if (net === undefined || (value.kind !== 'figure' && value.kind !== 'open')) return plain();
  const { words, state } = judgeJoint(board, net, value, { stats: references[measurementId(m)] });
  return { words, state };
}

const plain = (): Meaning => ({ words: '', state: 'plain' });

function healthyMean(predictor: Predictor, m: Measurement, absent: ReadonlySet<string>): number {
  const prediction = predictor.predict(m, SOUND, absent, new Set());
  return prediction.kind === 'values' ? prediction.alternatives[0].means[0] : 0;
}

function meterMeaning(board: Board, port: string, volts: number, amps: number): Meaning {
  const meter = readMeter(board, port, volts, amps);
  return { words: METER_WORDS[meter], state: meter === 'healthy' ? 'good' : 'bad' };
}

type Volts = Extract<Value, { kind: 'figure' }>;

/** True where a voltage stays in its window with the whole of its ripple, taken as even to both sides. */
export const holdsRipple = (
  { minV, maxV }: { readonly minV: number; readonly maxV: number },
  volts: number,
  ripplePpV: number,
): boolean => volts - ripplePpV / 2 >= minV && volts + ripplePpV / 2 <= maxV;

/** The window of a rail at its nominal supply, volts. */
export function railWindow(board: Board, railId: string): { expectV: number; minV: number; maxV: number } {
  const rail = board.rails.find((r) => r.id === railId)!;
  const port = board.ports.find((p) => p.id === rail.port) ?? board.ports[0];
  const expectV = rail.expect.kind === 'bus' ? port.designV : rail.expect.volts;
  return { expectV, minV: expectV * (1 - rail.tolerance), maxV: expectV * (1 + rail.tolerance) };
}

function voltsMeaning(board: Board, railId: string, { value: volts, ripplePpV = 0, swings }: Volts): Meaning {
  const { minV, maxV } = railWindow(board, railId);
  if (swings) return bad('it comes and goes: what makes it cannot hold it, or a load pulls it down');
  if (volts >= minV && volts <= maxV && !holdsRipple(railWindow(board, railId), volts, ripplePpV))
    return bad(`its ripple of ${formatVolt(ripplePpV)} leaves the window: look at its capacitors`);
  if (volts >= minV && volts <= maxV) return good('in its window');
  const wanted = `wanted ${formatVolt(minV)} to ${formatVolt(maxV)}`;
  if (Math.abs(volts) < 0.2) return bad(`next to nothing, ${wanted}`);
  return bad(`${volts < minV ? 'low' : 'high'}, ${wanted}`);
}

function dropMeaning(normalV: number, value: Value): Meaning {
  if (value.kind === 'open') return bad('open: the way to the chip is cut, or its input is gone');
  if (value.kind !== 'figure') return plain();
  if (value.value < WRONG_SIGN_V) return bad('wrong sign: the chip behind is damaged, or the leads are swapped');
  if (value.value < DROP_SHORTED_V) return bad('shorted to ground');
  if (Math.abs(value.value - normalV) <= NORMAL_DROP_V) return good(`normal, ${formatDrop(normalV)} expected`);
  return bad(`off, ${formatDrop(normalV)} expected: the chip behind it is suspect`);
}

const logOf = (value: Value): number | undefined =>
  value.kind === 'open' ? OPEN_LOG_OHM : value.kind === 'figure' ? shownLogOhm(value.value) : undefined;

function ohmMeaning(healthyLog: number, value: Value, m: Measurement, board: Board): Meaning {
  const normal = healthyLog >= OPEN_LOG_OHM ? 'open' : formatOhm(10 ** healthyLog);
  const lowByNature = 'net' in m && board.nets[m.net].lowByNature;
  if (value.kind === 'beep') return lowByNature ? plain() : bad(`a short or close to it, ${normal} expected`);
  const log = logOf(value);
  if (log === undefined) return plain();
  if (Math.abs(log - healthyLog) <= NORMAL_DECADES) {
    return good(lowByNature ? 'low by nature here, normal' : `normal, ${normal} expected`);
  }
  if (log < healthyLog)
    return bad(10 ** log < SHORT_BELOW_OHM ? `a short, ${normal} expected` : `low, ${normal} expected`);
  return bad(`too high, ${normal} expected: a load or a path is missing`);
}

function throughMeaning(healthyLog: number, value: Value): Meaning {
  const conducts = healthyLog < Math.log10(2);
  const log = value.kind === 'beep' ? 0 : logOf(value);
  if (log === undefined) return plain();
  if (conducts) return log < Math.log10(3) ? good('it conducts') : bad('open: it should conduct');
  if (Math.abs(log - healthyLog) <= NORMAL_DECADES) return good('normal');
  return log < healthyLog ? bad('bridged: these should not be joined') : bad('open');
}
