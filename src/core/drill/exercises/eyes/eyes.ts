import { z } from 'zod';
import { drawScene, HARD, renderScene, type BallSizes, type GreyPicture, type Scene } from '../../../inspect';
import { fullPattern } from '../../../site';
import { normalQuantile, seededRandom } from '../../../math';
import { defineExercise, exerciseHead, type ExerciseResult } from '../definition';

const MOST_PICTURES = 12;
const MOST_SITES = 400;

export const eyesSchema = z.strictObject({
  kind: z.literal('eyes'),
  ...exerciseHead,
  pictures: z.number().int().min(1).max(MOST_PICTURES),
  secondsEach: z.number().int().min(3).max(120).describe('so long a picture is shown'),
});
export type EyesDrill = z.infer<typeof eyesSchema>;

export const eyesDoneSchema = z.strictObject({
  marked: z
    .array(z.array(z.number().int().min(0).max(MOST_SITES)).max(MOST_SITES))
    .max(MOST_PICTURES)
    .describe('sites that were called bad, picture by picture, by their number from the upper left, row by row'),
});
export type EyesDone = z.infer<typeof eyesDoneSchema>;

/** What may be wrong with a ball. */
export type Flaw = 'missing' | 'bridged' | 'small' | 'large' | 'beside';

export const FLAW_WORDS: Readonly<Record<Flaw, string>> = {
  missing: 'missing',
  bridged: 'bridged',
  small: 'too small',
  large: 'too large',
  beside: 'beside its pad',
};

/** Off by more than this share a ball is small or large, and so far from its site it is beside it, pitches: between what is drawn sound and bad. */
const SIZE_SHARE = 0.1;
const BESIDE_PITCHES = 0.08;

const SIZES: BallSizes = { ball: 0.58, pad: 0.47 };
const PITCH_PX = 44;

/** How large the array is and how badly it is lit, by grade. Engineering estimates. */
function sceneOf({ seed, grade }: EyesDrill, picture: number): Scene {
  const random = seededRandom(seed + 100 * picture);
  const side = 4 + Math.ceil(grade / 2);
  const hard = grade / 10;
  const trouble = {
    ...HARD,
    defects: 0.07,
    tiltDeg: 2 + 6 * hard,
    blurPx: 0.6 + 0.9 * hard,
    noise: 2 + 6 * hard,
    slope: 0.5 * hard,
    hairs: grade > 5 ? 1 : 0,
    glares: grade > 3 ? 1 : 0,
    crumbs: grade > 6 ? 1 : 0,
  };
  return drawScene(fullPattern(side + 1, side), SIZES, PITCH_PX, random, trouble);
}

/** A picture to be judged, and where its sites lie in it: nothing of what is wrong. */
export interface EyesPicture {
  readonly picture: GreyPicture;
  readonly toPicture: Scene['toPicture'];
  readonly pattern: Scene['pattern'];
}

export function eyesPicture(drill: EyesDrill, picture: number): EyesPicture {
  const scene = sceneOf(drill, picture);
  const noise = seededRandom(drill.seed + 100 * picture + 1);
  return { picture: renderScene(scene, noise), toPicture: scene.toPicture, pattern: scene.pattern };
}

/** What is wrong in a picture, by site; sound sites are not in it. */
export function flawsOf(drill: EyesDrill, picture: number): ReadonlyMap<number, Flaw> {
  const { balls, bridges } = sceneOf(drill, picture);
  const flaws = new Map<number, Flaw>();
  balls.forEach((ball, i) => {
    if (!ball) return flaws.set(i, 'missing');
    const share = ball.diameter / SIZES.ball - 1;
    if (Math.abs(share) > SIZE_SHARE) flaws.set(i, share < 0 ? 'small' : 'large');
    else if (Math.hypot(ball.offset.x, ball.offset.y) > BESIDE_PITCHES) flaws.set(i, 'beside');
  });
  for (const { a, b } of bridges) for (const site of [a, b]) flaws.set(site, 'bridged');
  return flaws;
}

export interface EyesReview extends ExerciseResult {
  readonly kind: 'eyes';
  readonly hits: number;
  readonly there: number;
  readonly falseAlarms: number;
  readonly sound: number;
  /** How well bad is told from sound, whatever the inclination to call things bad. */
  readonly dPrime: number;
  /** Of each flaw how many were there and how many were seen; those that were drawn. */
  readonly byFlaw: readonly { readonly flaw: Flaw; readonly there: number; readonly seen: number }[];
}

/** Rates with half a case added, so that none is 0 or 1. Source: Hautus (1995), the log-linear rule (from memory). */
const rate = (count: number, of: number): number => (count + 0.5) / (of + 1);

/** How far apart bad and sound are for an eye, in deviations of what it sees. Source: Green & Swets (1966), d′ (from memory). */
export const dPrimeOf = (of: Pick<EyesReview, 'hits' | 'there' | 'falseAlarms' | 'sound'>): number =>
  normalQuantile(rate(of.hits, of.there)) - normalQuantile(rate(of.falseAlarms, of.sound));

function reviewEyes(drill: EyesDrill, { marked }: EyesDone): EyesReview {
  const tally = new Map<Flaw, { there: number; seen: number }>();
  let [hits, there, falseAlarms, sound] = [0, 0, 0, 0];
  for (let picture = 0; picture < drill.pictures; picture++) {
    const flaws = flawsOf(drill, picture);
    const called = new Set(marked[picture] ?? []);
    const { columns, rows } = sceneOf(drill, picture).pattern;
    for (const [site, flaw] of flaws) {
      const of = tally.get(flaw) ?? { there: 0, seen: 0 };
      tally.set(flaw, { there: of.there + 1, seen: of.seen + Number(called.has(site)) });
      hits += Number(called.has(site));
    }
    there += flaws.size;
    sound += columns * rows - flaws.size;
    falseAlarms += [...called].filter((site) => site < columns * rows && !flaws.has(site)).length;
  }
  const byFlaw = [...tally].map(([flaw, of]) => ({ flaw, ...of }));
  const worst = byFlaw.toSorted((a, b) => a.seen / a.there - b.seen / b.there).find((f) => f.seen < f.there);
  const hitRate = there === 0 ? 1 : hits / there;
  const falseRate = sound === 0 ? 0 : falseAlarms / sound;
  return {
    kind: 'eyes',
    ...{ hits, there, falseAlarms, sound, byFlaw },
    dPrime: dPrimeOf({ hits, there, falseAlarms, sound }),
    end: 'judged',
    // Youden's index: 1 for every flaw seen and nothing else called, 0 for guessing.
    score: Math.max(0, Math.min(1, hitRate - falseRate)),
    lesson: worst
      ? `Of ${worst.there} that were ${FLAW_WORDS[worst.flaw]} ${worst.there - worst.seen} went by.`
      : falseAlarms > 0
        ? 'All that was bad was seen; some that was sound was called bad.'
        : 'Every flaw was seen, and nothing else was called.',
  };
}

export const eyesExercise = defineExercise<EyesDrill, EyesDone, EyesReview>({
  kind: 'eyes',
  title: 'Eyes on balls',
  about: 'Pictures of balled parts, a few seconds each: mark every ball that may not go onto a board.',
  spec: eyesSchema,
  done: eyesDoneSchema,
  course: ({ id }) =>
    [2, 5, 8].map((grade, i) => ({
      ...{ kind: 'eyes', format: 1, name: ['Well lit', 'As it comes', 'Badly lit'][i] },
      ...{ boardId: id, seed: 9100 + 1000 * i, grade, pictures: 5, secondsEach: 20 },
    })),
  review: (_board, spec, done) => reviewEyes(spec, done),
});
