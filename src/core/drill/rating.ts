/** A skill with its uncertainty, on the scale of Glickman's rating: 1500 is where everybody begins. */
export interface Rating {
  readonly rating: number;
  readonly deviation: number;
  readonly drills: number;
}

export const NEW_LEARNER: Rating = { rating: 1500, deviation: 350, drills: 0 };

/** Source: Glickman (1999), Parameter estimation in large dynamic paired comparison experiments, Applied Statistics 48 (from memory). */
const Q = Math.LN10 / 400;
const g = (deviation: number): number => 1 / Math.sqrt(1 + (3 * Q ** 2 * deviation ** 2) / Math.PI ** 2);

/** What a drill of a grade is rated at, and how sure that is. Engineering estimates: ten grades over the range of most learners. */
const GRADE_FROM = 1100;
const GRADE_STEP = 80;
const GRADE_DEVIATION = 60;
/** A skill is never taken as surer than this: people learn, and forget. Engineering estimate. */
const LEAST_DEVIATION = 45;

const gradeRating = (grade: number): number => GRADE_FROM + GRADE_STEP * (grade - 1);

/** The score that a learner of this skill is expected to reach at a grade. */
export const expectedScore = ({ rating }: Pick<Rating, 'rating'>, grade: number): number =>
  1 / (1 + 10 ** ((-g(GRADE_DEVIATION) * (rating - gradeRating(grade))) / 400));

/** The skill after a drill. @param score from 0 to 1. */
export function rated(before: Rating, grade: number, score: number): Rating {
  const expected = expectedScore(before, grade);
  const weight = g(GRADE_DEVIATION);
  const variance = 1 / (Q ** 2 * weight ** 2 * expected * (1 - expected));
  const precision = 1 / before.deviation ** 2 + 1 / variance;
  return {
    rating: before.rating + (Q / precision) * weight * (score - expected),
    deviation: Math.max(LEAST_DEVIATION, Math.sqrt(1 / precision)),
    drills: before.drills + 1,
  };
}

/** The grade that teaches most now: where half of the score is to be expected. */
export function nextGrade({ rating }: Pick<Rating, 'rating'>): number {
  return Math.min(10, Math.max(1, 1 + Math.round((rating - GRADE_FROM) / GRADE_STEP)));
}
