import { findBlobs } from './blobs';
import { scaled, type Homography, type SitePattern } from '../site';
import { layPattern, type LaidPattern } from './lattice';
import { shrunk, type GreyPicture } from './picture';

/** Spots are looked for with about so many pixels to a pitch: enough for a ball, and quick. */
const SEARCH_PX = 11;
/** From one pitch tried to the next: a pitch within a third of the true one is enough to find the lattice. */
const NEXT_PITCH = 1.3;
const MOST_PITCHES = 9;
/** Spots looked at, against the sites. */
const SPOTS_PER_SITE = 1.4;
const SPARE_SPOTS = 16;
/** With so many sites found a smaller pitch is not tried once it does worse. */
const FOUND = 0.8;

/** Lays a pattern over a picture of unknown scale: the pitch under which it meets most. */
export function findPattern(picture: GreyPicture, pattern: SitePattern): LaidPattern | undefined {
  const { columns, rows } = pattern;
  const [long, short] = [Math.max(picture.width, picture.height), Math.min(picture.width, picture.height)];
  const count = { long: Math.max(columns, rows), short: Math.min(columns, rows) };
  let pitchPx = Math.min(long / (count.long - 0.4), short / (count.short - 0.4));
  let best: LaidPattern | undefined;
  for (let k = 0; k < MOST_PITCHES; k++, pitchPx /= NEXT_PITCH) {
    const laid = atPitch(picture, pattern, pitchPx);
    if (laid && laid.score > (best?.score ?? 0)) best = laid;
    else if (best && best.hit >= FOUND) break;
  }
  return best;
}

function atPitch(picture: GreyPicture, pattern: SitePattern, pitchPx: number): LaidPattern | undefined {
  const factor = Math.max(1, Math.round(pitchPx / SEARCH_PX));
  const most = Math.round(pattern.columns * pattern.rows * SPOTS_PER_SITE) + SPARE_SPOTS;
  const laid = layPattern(findBlobs(shrunk(picture, factor), pitchPx / factor, most), pattern, pitchPx / factor);
  return laid && { ...laid, toPicture: scaled(laid.toPicture, factor) };
}

/** More pixels to a pitch tell nothing more; an array may fill as little as half of its picture. Engineering estimates. */
const USEFUL_PX = 90;

/** The longer side, px, from which on a picture of a pattern tells nothing more: a larger one may be shrunk to it. */
export const usefulSidePx = ({ columns, rows }: SitePattern): number => USEFUL_PX * (Math.max(columns, rows) + 2);

/** Pixels per pitch in the middle of the pattern. */
export const pitchOf = (h: Homography): number => Math.sqrt(Math.abs(h[0] * h[4] - h[1] * h[3]));
