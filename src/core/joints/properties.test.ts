/** What has to hold whatever the figures are. */
import fc from 'fast-check';
import { judgeFlatness } from './flatness';
import { bestStencil } from './stencil';
import { collapseBall } from './collapse';
import { SOLDERS, mixSolders } from './mixture';
import { ballHeightMm, judgeUniformity } from './uniformity';

const mm = (min: number, max: number) => fc.double({ min, max, noNaN: true });

test('more solder never stands lower, wider pads never higher, and no joint is higher than its ball', () => {
  fc.assert(
    fc.property(mm(0.15, 0.8), mm(0.3, 0.45), mm(0.3, 0.45), mm(0, 0.05), (d, a, b, added) => {
      const [padA, padB] = [a * d, b * d];
      const usual = collapseBall(d, padA, padB).standoffMm;
      expect(collapseBall(d, padA, padB, added).standoffMm).toBeGreaterThanOrEqual(usual - 1e-12);
      expect(collapseBall(d, 1.05 * padA, padB).standoffMm).toBeLessThanOrEqual(usual + 1e-12);
      expect(usual).toBeLessThan(d);
    }),
  );
});

test('all lengths twice as long: the joint too', () => {
  fc.assert(
    fc.property(mm(0.15, 0.8), mm(0.3, 0.45), (d, a) => {
      const [one, two] = [collapseBall(d, a * d, a * d), collapseBall(2 * d, 2 * a * d, 2 * a * d)];
      expect(two.standoffMm / one.standoffMm).toBeCloseTo(2, 9);
      expect(two.widestRadiusMm / one.widestRadiusMm).toBeCloseTo(2, 9);
      expect(ballHeightMm(2 * d, 2 * a * d) / ballHeightMm(d, a * d)).toBeCloseTo(2, 9);
    }),
  );
});

const arrayOf = (heights: readonly number[]) =>
  heights.map((heightMm, i) => ({ xMm: i % 4, yMm: Math.floor(i / 4), heightMm }));

test('a plane added to all heights lifts the plane that carries the part by itself, over the middle', () => {
  fc.assert(
    fc.property(
      fc.array(mm(0.2, 0.3), { minLength: 12, maxLength: 12 }),
      mm(-0.02, 0.02),
      mm(-0.02, 0.02),
      (heights, slopeX, slopeY) => {
        const sloped = arrayOf(heights).map((b) => ({ ...b, heightMm: b.heightMm + slopeX * b.xMm + slopeY * b.yMm }));
        const [x, y] = [1.5, 1];
        const over = (balls: ReturnType<typeof arrayOf>): number => {
          const { a, b, c } = judgeUniformity(balls, 0.08).plane;
          return a + b * x + c * y;
        };
        expect(over(sloped)).toBeCloseTo(over(arrayOf(heights)) + slopeX * x + slopeY * y, 9);
      },
    ),
    { numRuns: 60 },
  );
});

test('no ball sticks out of the plane that carries the part', () => {
  fc.assert(
    fc.property(fc.array(mm(0.1, 0.4), { minLength: 8, maxLength: 40 }), (heights) => {
      const { gapsMm, coplanarityMm } = judgeUniformity(arrayOf(heights), 0.08);
      expect(Math.min(...gapsMm)).toBeGreaterThan(-1e-6);
      expect(coplanarityMm).toBeCloseTo(Math.max(...gapsMm), 12);
    }),
    { numRuns: 60 },
  );
});

test('flat is flat at any height: a constant added to all readings changes nothing', () => {
  fc.assert(
    fc.property(fc.array(mm(0, 0.2), { minLength: 4, maxLength: 4 }), mm(0, 2), (heights, up) => {
      const corners = (by: number) => heights.map((h, i) => ({ xMm: i % 2, yMm: i >> 1, heightMm: h + by }));
      const [low, high] = [judgeFlatness(corners(0), [6, 6], 0.2)!, judgeFlatness(corners(up), [6, 6], 0.2)!];
      expect(high.tiltMm).toBeCloseTo(low.tiltMm, 9);
      expect(high.residualMm).toBeCloseTo(low.residualMm, 9);
    }),
  );
});

test('a mix weighs what went in, its shares add up to one, and it melts within what went in or at an eutectic below', () => {
  const portion = fc.record({ alloy: fc.constantFrom(...SOLDERS), volumeMm3: mm(0.01, 5) });
  fc.assert(
    fc.property(fc.array(portion, { minLength: 1, maxLength: 4 }), (portions) => {
      const mixed = mixSolders(portions);
      expect(Object.values(mixed.weights).reduce((s, w) => s + w, 0)).toBeCloseTo(1, 9);
      expect(mixed.massMg).toBeCloseTo(
        portions.reduce((s, p) => s + p.volumeMm3 * p.alloy.gramPerCm3, 0),
        9,
      );
      expect(mixed.solidusC).toBeLessThanOrEqual(mixed.liquidusC);
      expect(mixed.liquidusC).toBeLessThanOrEqual(Math.max(...portions.map((p) => p.alloy.liquidusC), 231.9));
      expect(mixed.solidusC).toBeGreaterThanOrEqual(Math.min(...portions.map((p) => p.alloy.solidusC), 183));
    }),
  );
});

test('a stencil that is found releases and leaves a web, whatever is asked for', () => {
  fc.assert(
    fc.property(mm(0.3, 1.3), mm(0.35, 0.6), mm(0.3, 0.7), (pitchMm, pad, ball) => {
      const found = bestStencil({ pitchMm, padMm: pad * pitchMm, ballMm: ball * pitchMm, alloy: 'SAC305' });
      if (!found) return;
      expect(found.areaRatio).toBeGreaterThanOrEqual(0.66 - 1e-9);
      expect(pitchMm - found.apertureMm).toBeGreaterThanOrEqual(0.08 - 1e-9);
    }),
  );
});
