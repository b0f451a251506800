import type { ImageFamily, Region } from './family';

/** A run of differing bytes. */
export interface Run {
  readonly offset: number;
  readonly length: number;
}

export interface RegionDifference {
  readonly region: Region;
  readonly differingBytes: number;
  /** First runs of difference, for showing; gaps of up to eight equal bytes are bridged. */
  readonly runs: readonly Run[];
  readonly words: string;
}

const BRIDGE = 8;
const MOST_RUNS = 12;

/** Compares two images of one family region by region, meaning first. Bytes outside all regions form a region of their own. */
export function compareImages(family: ImageFamily, a: Uint8Array, b: Uint8Array): RegionDifference[] {
  return family.regions.map((region) => {
    const runs: { offset: number; length: number }[] = [];
    let differing = 0;
    for (let i = region.offset; i < region.offset + region.length; i++) {
      if (a[i] === b[i]) continue;
      differing++;
      const last = runs[runs.length - 1];
      if (last && i <= last.offset + last.length + BRIDGE) last.length = i - last.offset + 1;
      else runs.push({ offset: i, length: 1 });
    }
    return {
      region,
      differingBytes: differing,
      runs: runs.slice(0, MOST_RUNS),
      words: positionWords(family, region, a, b) ?? meaningOf(region, differing),
    };
  });
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

function meaningOf(region: Region, differing: number): string {
  if (differing === 0) return 'the same';
  switch (region.meaning) {
    case 'identity':
      return 'differs, as it should: it belongs to the unit';
    case 'calibration':
      return 'differs: it belongs to the unit';
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
