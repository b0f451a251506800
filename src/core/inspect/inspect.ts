import { median } from '../math';
import { gapLevel, bodyGrey } from './bridge';
import { findOutline, type Outline } from './circle';
import { findCrumbs } from './crumbs';
import { edgeShift } from './edge-shift';
import { findPattern, pitchOf } from './find';
import { matchProfiles, type ProfileMatch } from './profile';
import {
  fitHomography,
  inverse,
  mapPoint,
  neighbourPairs,
  scaled,
  sitesOf,
  type Homography,
  type Point,
  type Site,
  type SitePattern,
} from '../site';
import { compareFaces, type Face } from './shading-correlation';
import { sizesOf } from './sizing';
import { shrunk, type GreyPicture } from './picture';

export type BallVerdict = 'good' | 'missing' | 'small' | 'large' | 'beside';

export interface InspectedBall extends Site {
  readonly verdict: BallVerdict;
  readonly diameterMm: number;
  /** Standard deviation of the diameter as measured. */
  readonly diameterSdMm: number;
  /** From its site, mm. */
  readonly offsetMm: Point;
  /** Grey against the picture's usual ball: a dull one lies well below 1. */
  readonly brightness: number;
  /** True where hair, glare or blur leaves it open: to be looked at by eye. */
  readonly unclear: boolean;
}

export interface Inspection {
  /** From the pattern's frame, pitches from its middle, to the picture, px. */
  readonly toPicture: Homography;
  readonly mmPerPx: number;
  readonly balls: readonly InspectedBall[];
  /** Neighbours with solder between them, as positions in `balls`. */
  readonly bridges: readonly (readonly [number, number])[];
  /** Bits that do not belong there, in the pattern's frame. */
  readonly solderDebris: readonly Point[];
  /** Median diameter of the balls that are there. */
  readonly usualMm: number;
  /** True where they measure so unlike the balls that belong there that it may be the light or another size of ball. */
  readonly sizeInDoubt: boolean;
}

export interface BallLimits {
  /** A ball that differs from the usual by more than this share is small or large. */
  readonly sizeShare: number;
  /** A ball whose centre is farther from its site, in pitches, is beside it. */
  readonly besidePitches: number;
}

/** Engineering estimates: different sizes on one part are a reject; a ball pulls itself straight within a tenth of a pitch. */
export const BALL_LIMITS: BallLimits = { sizeShare: 0.08, besidePitches: 0.08 };

/** Less of a ball's shading than this and only the pad is there; nearer than the second it is left to the eye. */
const LEAST_LIKENESS = 0.32;
const UNCLEAR_LIKENESS = 0.12;
/** A dazzled ball that still shades like so much of a usual one is told. */
const DAZZLED_CLEAR = 0.7;
/** So much smaller than the usual ball, a dazzled one is its pad. */
const PAD_SHARE = -0.1;
/** The smaller the outline, the more of a ball's shading it takes to be one: a pad under bright light shades a little too. */
const PADS_BY_SIZE = [
  { share: -0.1, shadingCorrelation: 0.45 },
  { share: -0.25, shadingCorrelation: 0.65 },
];
/** An edge seen on fewer rays is left to the eye. */
const LEAST_SUPPORT = 0.6;
const SOUND_SUPPORT = 0.8;
/** So near to the usual size, relative, an edge all round is not a pad's. */
const LIKE_OTHERS = 0.07;
/**
 * A wrong size is said from so many standard deviations beyond the limit on, and a right one from so many within: between them it is left to
 * the eye. Unlike, because balls of the right size are many and edges that jump make long tails. Engineering estimates.
 */
const WRONG_FROM_SDS = 2.5;
const RIGHT_FROM_SDS = 0.75;
/** A ring of light ends at 0.7 of the ball's radius; the edge beyond it counts from three quarters of what is usual. */
const RING_SHARE = 0.74;
const USUAL_SHARE = 0.1;
const WHERE_OTHERS_ARE = [0.92, 1.1] as const;
const OUTER_EDGE = 0.75;
/** An edge farther than this from where the whole run of grey puts it, relative, is another one: halo, rim or highlight. */
const EDGE_OFF_PROFILE = 0.06;
/** A run of grey that fits the usual ball's so badly, in standard deviations, is left to the eye. */
const UNLIKE_SDS = 2;
const DULL_LIKENESS = 0.6;
/** A ball of another size shades like the others: with less it is left to the eye, for it may be a pad. */
const SIZED_UNLIKE_SDS = 2;
const SIZED_LIKENESS = 0.65;
/** A gap that is so much like solder is bridged: without solder it stays below 0.2, with it above 1 (benchmark's pictures). */
const BRIDGED_FROM = 0.55;
/** Fewer sites with a spot on them than this share: the picture does not show the pattern. */
const LEAST_HIT = 0.5;
/** Edges are measured with about so many pixels to a pitch; more only adds noise and time. */
const MEASURE_PX = 44;

/**
 * Looks over a picture of a balled part: where the pattern lies, and for every site whether a ball is there, how large it
 * is, whether it stands on its site and touches a neighbour. The known pitch gives the scale.
 * @param size the ball that belongs there, mm. @returns undefined where the pattern is not found in the picture.
 */
export function inspectBalls(
  picture: GreyPicture,
  pattern: SitePattern,
  size: { readonly pitchMm: number; readonly ballMm: number },
  limits: BallLimits = BALL_LIMITS,
): Inspection | undefined {
  const laid = findPattern(picture, pattern);
  if (!laid || laid.hit < LEAST_HIT) return undefined;
  const factor = Math.max(1, Math.floor(pitchOf(laid.toPicture) / MEASURE_PX));
  const near = shrunk(picture, factor);
  const sites = sitesOf(pattern);
  const first = scaled(laid.toPicture, 1 / factor);
  const expected = size.ballMm / size.pitchMm / 2;
  const found = sites.map((site, i) => findOutline(near, first, laid.spots[i] ?? site, expected));
  const { h, outlines: placed } = onTheirSites(first, sites, pastHighlights(near, first, found));
  const { outlines, profiles, usual } = whereProfilesSay(near, h, sites, placed);
  const faces = compareFaces(near, h, outlines, (o) => o.support > SOUND_SUPPORT);
  const shift = edgeShift(
    near,
    h,
    outlines.filter((o, i) => o.support > SOUND_SUPPORT && faces[i].shadingCorrelation > 0.5),
  );
  const there = outlines.filter((_, i) => faces[i].shadingCorrelation >= LEAST_LIKENESS);
  if (there.length === 0) return undefined;
  const isThere = new Set(there);
  const sizing = sizesOf(
    outlines.map((o, i) => ({
      at: sites[i],
      radius: o.radius + shift,
      profileRadius: profiles[i].scale * usual + shift,
      sd: o.radiusSd,
      sound: isThere.has(o) && o.support > LEAST_SUPPORT,
    })),
    expected,
  );
  const balls = sites.map((site, i) =>
    inspectBall(
      site,
      { outline: outlines[i], face: faces[i], profile: profiles[i] },
      { ...sizing.radii[i], usual: sizing.usual, size, limits },
    ),
  );
  const bridges = neighbourPairs(sites).filter(
    ([a, b]) =>
      balls[a].verdict !== 'missing' &&
      balls[b].verdict !== 'missing' &&
      gapLevel(near, h, [outlines[a], outlines[b]]) > BRIDGED_FROM,
  );
  const solder = median(there.map((o) => bodyGrey(near, h, o)));
  return {
    toPicture: scaled(h, factor),
    mmPerPx: size.pitchMm / (pitchOf(h) * factor),
    balls,
    bridges,
    solderDebris: findCrumbs(near, h, pattern, sites, outlines, bridges, solder),
    usualMm: 2 * sizing.usual * size.pitchMm,
    sizeInDoubt: sizing.inDoubt,
  };
}

/** What was seen in a shrunk picture, for the picture as it was: `factor` of its pixels were one. */
export const enlarged = (seen: Inspection, factor: number): Inspection => ({
  ...seen,
  toPicture: scaled(seen.toPicture, factor),
  mmPerPx: seen.mmPerPx / factor,
});

/**
 * A ball that shines has a ring of light on it whose edge is steeper than the ball's own: a far too small outline is
 * looked at again where the others have theirs.
 */
function pastHighlights(near: GreyPicture, first: Homography, outlines: readonly Outline[]): Outline[] {
  const usual = median(outlines.map((o) => o.radius));
  const edge = median(outlines.filter((o) => Math.abs(o.radius / usual - 1) < USUAL_SHARE).map((o) => o.edge));
  return outlines.map((inner) => {
    if (inner.radius > RING_SHARE * usual) return inner;
    const outer = findOutline(near, first, inner.centre, usual, WHERE_OTHERS_ARE);
    return outer.support > SOUND_SUPPORT && outer.edge > OUTER_EDGE * edge ? outer : inner;
  });
}

/**
 * An edge that lies elsewhere than the site's whole run of grey says is looked for again where that puts it. The profiles tell what is
 * left to the eye.
 */
function whereProfilesSay(
  near: GreyPicture,
  h: Homography,
  sites: readonly Site[],
  outlines: readonly Outline[],
): { outlines: Outline[]; profiles: ProfileMatch[]; usual: number } {
  const faces = compareFaces(near, h, outlines, (o) => o.support > SOUND_SUPPORT);
  const isBall = (i: number): boolean =>
    outlines[i].support > SOUND_SUPPORT && faces[i].shadingCorrelation >= LEAST_LIKENESS;
  const balls = outlines.filter((_, i) => isBall(i));
  const usual = median((balls.length > 0 ? balls : outlines).map((o) => o.radius));
  const profiles = matchProfiles(near, h, { sites, outlines }, usual, isBall);
  return {
    profiles,
    usual,
    outlines: outlines.map((outline, i) => {
      const radius = profiles[i].scale * usual;
      if (Math.abs(outline.radius / radius - 1) < EDGE_OFF_PROFILE) return outline;
      const there = findOutline(near, h, outline.centre, radius, [1 - EDGE_OFF_PROFILE, 1 + EDGE_OFF_PROFILE]);
      return there.support > SOUND_SUPPORT ? there : outline;
    }),
  };
}

/** The pattern laid anew through the outlines' middles, which are known better than the spots that it was found by. */
function onTheirSites(
  h: Homography,
  sites: readonly Site[],
  outlines: readonly Outline[],
): { h: Homography; outlines: Outline[] } {
  const sound = sites.flatMap((site, i) =>
    outlines[i].support > SOUND_SUPPORT ? [{ site, to: outlines[i].centre }] : [],
  );
  const better = fitHomography(
    sound.map((s) => s.site),
    sound.map((s) => mapPoint(h, s.to)),
  );
  if (!better) return { h, outlines: [...outlines] };
  // The two frames differ by hundredths of a pitch: radii stay, centres are read off anew.
  const back = inverse(better);
  return { h: better, outlines: outlines.map((o) => ({ ...o, centre: mapPoint(back, mapPoint(h, o.centre)) })) };
}

function inspectBall(
  site: Site,
  { outline, face, profile }: { outline: Outline; face: Face; profile: ProfileMatch },
  {
    radius,
    sd,
    ownSd,
    usual,
    size,
    limits,
  }: {
    radius: number;
    sd: number;
    ownSd: number;
    usual: number;
    size: { readonly pitchMm: number };
    limits: BallLimits;
  },
): InspectedBall {
  const offset = { x: outline.centre.x - site.x, y: outline.centre.y - site.y };
  const share = radius / usual - 1;
  // An edge all round where the others have theirs is a ball's, whatever its shading: left to the eye.
  const likeOthers = outline.support > SOUND_SUPPORT && Math.abs(share) < LIKE_OTHERS;
  // Where light dazzles only the size tells a ball from its pad.
  const gone =
    !likeOthers &&
    ((face.shadingCorrelation < LEAST_LIKENESS && (!face.dazzled || share < PAD_SHARE)) ||
      PADS_BY_SIZE.some((pad) => share < pad.share && face.shadingCorrelation < pad.shadingCorrelation));
  const beyond = Math.abs(share) - limits.sizeShare;
  // Said of a size only what the doubt against the other balls leaves.
  const beyondSds = beyond / (ownSd / usual);
  const verdict = gone
    ? 'missing'
    : beyondSds > WRONG_FROM_SDS
      ? share < 0
        ? 'small'
        : 'large'
      : Math.hypot(offset.x, offset.y) > limits.besidePitches
        ? 'beside'
        : 'good';
  const wrongSize = verdict === 'small' || verdict === 'large';
  return {
    ...site,
    verdict,
    diameterMm: 2 * radius * size.pitchMm,
    diameterSdMm: 2 * sd * size.pitchMm,
    offsetMm: { x: offset.x * size.pitchMm, y: offset.y * size.pitchMm },
    brightness: face.brightness,
    unclear:
      (face.dazzled && face.shadingCorrelation < DAZZLED_CLEAR) ||
      Math.abs(face.shadingCorrelation - LEAST_LIKENESS) < UNCLEAR_LIKENESS ||
      (likeOthers && face.shadingCorrelation < LEAST_LIKENESS) ||
      (!gone && beyondSds > -RIGHT_FROM_SDS && beyondSds < WRONG_FROM_SDS) ||
      (!gone && (profile.misfitSds > UNLIKE_SDS || face.shadingCorrelation < DULL_LIKENESS)) ||
      (wrongSize && (profile.misfitSds > SIZED_UNLIKE_SDS || face.shadingCorrelation < SIZED_LIKENESS)) ||
      outline.support < LEAST_SUPPORT,
  };
}
