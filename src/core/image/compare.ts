import { alignImages, type AlignedStretch } from './align';
import type { ImageFamily, Region } from './family';

/** A run of differing bytes. */
export interface Run {
  readonly offset: number;
  readonly length: number;
}

export interface RegionDifference {
  readonly region: Region;
  /** Bytes that differ, or have no counterpart, once moved content is laid against where it went. */
  readonly differingBytes: number;
  /** Bytes that are the same but stand elsewhere. */
  readonly movedBytes: number;
  /** First runs of difference, for showing; gaps of up to eight equal bytes are bridged. */
  readonly runs: readonly Run[];
  readonly words: string;
}

const BRIDGE = 8;
const MOST_RUNS = 12;

/**
 * Compares two images of one family region by region, meaning first.
 * @param aligned the two laid against each other, where that is known already.
 */
export function compareImages(
  family: ImageFamily,
  a: Uint8Array,
  b: Uint8Array,
  aligned: readonly AlignedStretch[] = alignImages(a, b),
): RegionDifference[] {
  return family.regions.map((region) => {
    const runs: { offset: number; length: number }[] = [];
    const shifts = new Map<number, number>();
    let differing = 0;
    for (const stretch of within(aligned, region)) {
      if (stretch.equal) {
        if (stretch.shift) shifts.set(stretch.shift, (shifts.get(stretch.shift) ?? 0) + stretch.length);
        continue;
      }
      for (let i = stretch.offset; i < stretch.offset + stretch.length; i++) {
        if (stretch.shift !== undefined && a[i] === b[i + stretch.shift]) continue;
        differing += 1;
        const last = runs[runs.length - 1];
        if (last && i <= last.offset + last.length + BRIDGE) last.length = i - last.offset + 1;
        else runs.push({ offset: i, length: 1 });
      }
    }
    const movedBytes = [...shifts.values()].reduce((sum, n) => sum + n, 0);
    return {
      ...{ region, differingBytes: differing, movedBytes, runs: runs.slice(0, MOST_RUNS) },
      words:
        positionWords(family, region, a, b) ??
        movedWords(shifts, movedBytes, differing) ??
        interpretReading(region, differing),
    };
  });
}

/** The stretches of a region, cut to it. */
function* within(aligned: readonly AlignedStretch[], { offset, length }: Region): Generator<AlignedStretch> {
  const end = offset + length;
  for (const stretch of aligned) {
    const [from, to] = [Math.max(offset, stretch.offset), Math.min(end, stretch.offset + stretch.length)];
    if (from < to) yield { ...stretch, offset: from, length: to - from };
  }
}

/** Settings that differ in their position say so first: it decides whether the image can serve. */
function positionWords(
  { positionOffset: at }: ImageFamily,
  region: Region,
  a: Uint8Array,
  b: Uint8Array,
): string | undefined {
  if (at === undefined || at < region.offset || at >= region.offset + region.length || a[at] === b[at])
    return undefined;
  return `position ${a[at]} → ${b[at]}`;
}

/** Content that only moved is no damage; the commonest distance is named. */
function movedWords(shifts: ReadonlyMap<number, number>, movedBytes: number, differing: number): string | undefined {
  if (movedBytes === 0 || movedBytes < differing) return undefined;
  const [[shift]] = [...shifts].sort((x, y) => y[1] - x[1]);
  const rest = differing === 0 ? '' : '; the rest differs';
  return `${movedBytes.toLocaleString('en')} bytes stand ${Math.abs(shift).toLocaleString('en')} ${shift > 0 ? 'later' : 'earlier'}${rest}`;
}

function interpretReading(region: Region, differing: number): string {
  if (differing === 0) return 'the same';
  switch (region.meaning) {
    case 'identity':
      return 'differs, as it should: it belongs to the unit';
    case 'calibration':
      return 'differs: it belongs to the unit';
    case 'journal':
      return 'differs, as it should: each unit keeps its own';
    case 'settings':
      return 'settings differ: position or options';
    case 'checksum':
      return 'follows from the rest';
    case 'code':
      return 'code differs: another version, or damage';
    case 'padding':
      return 'differs, where nothing should be kept';
  }
}
