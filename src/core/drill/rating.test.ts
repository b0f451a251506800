import { normalDraw, seededRandom } from '../math';
import { expectedScore, NEW_LEARNER, nextGrade, rated } from '.';

test('Glickman’s worked example, one game at a time, within what the order of games may change', () => {
  // The paper's step: 1500 ± 200 against one opponent expects 0.5 where both are equal, and wins raise by K(s − E).
  expect(expectedScore({ rating: 1500 }, 6)).toBeCloseTo(0.5, 9);
  const won = rated({ rating: 1500, deviation: 200, drills: 0 }, 6, 1);
  const lost = rated({ rating: 1500, deviation: 200, drills: 0 }, 6, 0);
  expect(won.rating - 1500).toBeCloseTo(1500 - lost.rating, 9);
  // Closed form at E = 1/2: q / (1/200² + q² g² / 4) · g / 2, with g(60) = 1 / sqrt(1 + 3 q² 60² / π²).
  const q = Math.log(10) / 400;
  const g = 1 / Math.sqrt(1 + (3 * q ** 2 * 60 ** 2) / Math.PI ** 2);
  expect(won.rating - 1500).toBeCloseTo(((q / (1 / 200 ** 2 + (q ** 2 * g ** 2) / 4)) * g) / 2, 9);
  expect(won.deviation).toBeLessThan(200);
});

test('skill is recovered: forty drills put simulated learners in their order', () => {
  const random = seededRandom(27);
  const learners = Array.from({ length: 40 }, (_, i) => 1000 + 25 * i);
  const found = learners.map((skill) => {
    let now = NEW_LEARNER;
    for (let k = 0; k < 40; k++) {
      const grade = nextGrade(now);
      // Another law than the rating's: a score between 0 and 1, normal in its logit.
      const logit = (skill - 1100 - 80 * (grade - 1)) / 130 + 0.9 * normalDraw(random);
      now = rated(now, grade, 1 / (1 + Math.exp(-logit)));
    }
    return now.rating;
  });
  expect(spearman(learners, found)).toBeGreaterThanOrEqual(0.9);
});

/** Rank correlation. Source: Spearman (1904); 1 − 6 Σd² / (n (n² − 1)). */
function spearman(a: readonly number[], b: readonly number[]): number {
  const ranks = (list: readonly number[]): number[] => {
    const order = list.map((_, i) => i).sort((x, y) => list[x] - list[y]);
    const rank = new Array<number>(list.length);
    order.forEach((i, r) => (rank[i] = r));
    return rank;
  };
  const [ra, rb] = [ranks(a), ranks(b)];
  const n = a.length;
  return 1 - (6 * ra.reduce((sum, r, i) => sum + (r - rb[i]) ** 2, 0)) / (n * (n ** 2 - 1));
}

test('the next drill is where half of the score is to be expected', () => {
  expect([nextGrade({ rating: 700 }), nextGrade({ rating: 1500 }), nextGrade({ rating: 2500 })]).toEqual([1, 6, 10]);
  for (const rating of [1200, 1400, 1600, 1800])
    expect(Math.abs(expectedScore({ rating }, nextGrade({ rating })) - 0.5)).toBeLessThan(0.06);
});
