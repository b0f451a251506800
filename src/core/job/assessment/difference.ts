import type { PartRef } from '../../identities';
import {
  SHORT_BELOW_OHM,
  clearedTarget,
  interpretReading,
  measurementId,
  readingName,
  valueLabel,
  type Measurement,
  type Predictor,
  type Suspect,
  type Value,
} from '../../diagnose';
import { takenOnBoardAsIs, type JobState, type TakenReading } from '../log';

/** A measurement taken before and after work on the board, and what the difference says. */
export interface Difference {
  readonly seq: number;
  readonly name: string;
  readonly before: string;
  readonly after: string;
  readonly summary: string;
  readonly state: 'good' | 'bad' | 'plain';
}

/** Every measurement on the board as it is now that was also taken before the last work on it, newest first. */
export function differencesOf(predictor: Predictor, state: JobState, suspects: readonly Suspect[]): Difference[] {
  const { board } = predictor;
  return [...state.readings]
    .reverse()
    .filter((r) => takenOnBoardAsIs(state, r))
    .flatMap((now): Difference[] => {
      const before = earlierOf(state, now);
      if (!before) return [];
      const { measurement: m } = now;
      return [
        {
          seq: now.seq,
          name: readingName(board, m),
          before: valueLabel(m, before.value),
          after: valueLabel(m, now.value),
          ...verdict(predictor, before, now, netSuspects(board, m, suspects)),
        },
      ];
    });
}

function earlierOf(state: JobState, now: TakenReading): TakenReading | undefined {
  const id = measurementId(now.measurement);
  return [...state.readings]
    .reverse()
    .find((r) => r.seq < now.seq && measurementId(r.measurement) === id && !takenOnBoardAsIs(state, r));
}

/** Parts on the net of a measurement that are still suspected, likeliest first. */
function netSuspects(board: Predictor['board'], m: Measurement, suspects: readonly Suspect[]): string[] {
  if (m.kind !== 'groundResistance') return [];
  const onNet = (ref: PartRef): boolean =>
    Object.values(board.parts.find((p) => p.ref === ref)?.pins ?? {}).includes(m.net);
  return suspects.filter((s) => s.p > 0.02 && onNet(s.ref)).map((s) => s.ref);
}

type Verdict = Pick<Difference, 'summary' | 'state'>;

/** What work came between two readings: parts that went off, and parts and faults that are new or mended. */
function workBetween(before: TakenReading, now: TakenReading): { off: string[]; fresh: string[] } {
  return {
    off: now.absent.filter((ref) => !before.absent.includes(ref)),
    fresh: now.replaced.filter((ref) => !before.replaced.includes(ref)),
  };
}

function verdict(predictor: Predictor, before: TakenReading, now: TakenReading, left: readonly string[]): Verdict {
  const { off, fresh } = workBetween(before, now);
  const which = [...off, ...fresh.map((key) => clearedLabel(predictor.board, key))].join(', ') || 'the work';
  if (now.measurement.kind === 'groundResistance') return shortVerdict(before.value, now.value, off, which, left);
  const isBad = (r: TakenReading): boolean =>
    interpretReading(predictor, r.measurement, r.value, new Set(r.absent)).state === 'bad';
  const [was, is] = [isBad(before), isBad(now)];
  if (was && !is) return { summary: `mended with ${which}`, state: 'good' };
  if (was && is) return { summary: `${which} did not mend it`, state: 'bad' };
  return is
    ? { summary: `new since ${which}: look at the work itself first`, state: 'bad' }
    : { summary: 'good before and after', state: 'good' };
}

/** `U4`, or `U9 image` where only its image was written. */
function clearedLabel(board: Predictor['board'], key: string): string {
  const target = clearedTarget(board, key);
  return target?.kind === 'image' ? `${target.ref} image` : key;
}

function shortVerdict(
  before: Value,
  now: Value,
  off: readonly string[],
  which: string,
  left: readonly string[],
): Verdict {
  const [was, is] = [isShort(before), isShort(now)];
  const others = left.filter((ref) => !off.includes(ref));
  if (was && !is)
    return off.length > 0
      ? { summary: `the short went with ${which}: it was ${which}`, state: 'good' }
      : { summary: `the short is gone with the new ${which}`, state: 'good' };
  if (was && is) {
    const rest = others.length > 0 ? `: next on this line ${others.slice(0, 3).join(', ')}` : '';
    return { summary: `the short stays without ${which}: another part on this line${rest}`, state: 'bad' };
  }
  if (!was && is) return { summary: `a short that came with ${which}: the new part, or its solder`, state: 'bad' };
  return off.length > 0
    ? { summary: `no short before or after; ${which} takes its own load with it`, state: 'plain' }
    : { summary: 'no short before or after', state: 'good' };
}

const isShort = (value: Value): boolean =>
  value.kind === 'beep' || (value.kind === 'figure' && value.value < SHORT_BELOW_OHM);
