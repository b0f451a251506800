import { demoBoard } from '../../../demo/files';
import { landsOf, partByRef } from '../board';
import { seededRandom } from '../math';
import { DEFAULT_SITE_PRACTICE, cleaningPlan } from './cleaning';
import { judgeFlatness, selfCentring } from './flatness';
import { judgeReuse, planReball, type ArrayLands } from './reball';
import { ballHeightMm, coplanarityLimitMm, judgeUniformity, seatingPlane, type StandingBall } from './uniformity';

/** All threes of balls: the plane through them that lies over all balls and is lowest over their middle. */
function lowestOverMiddle(balls: readonly StandingBall[]): number {
  const x = balls.reduce((s, b) => s + b.xMm, 0) / balls.length;
  const y = balls.reduce((s, b) => s + b.yMm, 0) / balls.length;
  let lowest = Infinity;
  for (const p of balls)
    for (const q of balls)
      for (const r of balls) {
        const [ux, uy, uz] = [q.xMm - p.xMm, q.yMm - p.yMm, q.heightMm - p.heightMm];
        const [vx, vy, vz] = [r.xMm - p.xMm, r.yMm - p.yMm, r.heightMm - p.heightMm];
        const det = ux * vy - uy * vx;
        if (Math.abs(det) < 1e-9) continue;
        const b = (uz * vy - uy * vz) / det;
        const c = (ux * vz - uz * vx) / det;
        const a = p.heightMm - b * p.xMm - c * p.yMm;
        if (balls.every((k) => a + b * k.xMm + c * k.yMm > k.heightMm - 1e-9))
          lowest = Math.min(lowest, a + b * x + c * y);
      }
  return lowest;
}

const drawn = (columns: number, rows: number, seed: number): StandingBall[] => {
  const random = seededRandom(seed);
  return Array.from({ length: columns * rows }, (_, i) => ({
    xMm: 0.5 * (i % columns),
    yMm: 0.5 * Math.floor(i / columns),
    heightMm: 0.25 + 0.03 * random(),
  }));
};

test('the part rests on the lowest plane over its balls: every three tried', () => {
  for (let seed = 0; seed < 6; seed++) {
    const balls = drawn(5, 4, seed);
    const plane = seatingPlane(balls);
    const x = 1;
    const y = 0.75;
    expect(plane.a + plane.b * x + plane.c * y).toBeCloseTo(lowestOverMiddle(balls), 9);
  }
});

test('nothing sticks out of the plane of a large array, and three balls touch it', () => {
  const { gapsMm, plane } = judgeUniformity(drawn(20, 20, 3), 0.08);
  expect(Math.min(...gapsMm)).toBeGreaterThan(-1e-9);
  expect(plane.carriers).toHaveLength(3);
  for (const i of plane.carriers) expect(gapsMm[i]).toBeCloseTo(0, 9);
});

test('balls all alike lie in one plane; a small one among them is an open', () => {
  const height = ballHeightMm(0.3, 0.125);
  const alike = drawn(6, 6, 1).map((b) => ({ ...b, heightMm: height }));
  expect(judgeUniformity(alike, 0.08).coplanarityMm).toBeCloseTo(0, 9);
  const odd = alike.map((b, i) => (i === 14 ? { ...b, heightMm: ballHeightMm(0.2, 0.125) } : b));
  expect(judgeUniformity(odd, 0.05).opens).toEqual([14]);
});

test('a ball on one pad stands as high as the cap that holds its volume (closed form of a spherical cap)', () => {
  for (const [d, a] of [
    [0.3, 0.125],
    [0.5, 0.2],
  ]) {
    const h = ballHeightMm(d, a);
    expect((Math.PI * h * (3 * a * a + h * h)) / 6).toBeCloseTo((Math.PI * d ** 3) / 6, 9);
  }
});

test('coplanarity limits by pitch (package-outline practice, from memory)', () => {
  expect([0.4, 0.5, 0.65, 0.8].map(coplanarityLimitMm)).toEqual([0.08, 0.08, 0.1, 0.15]);
});

const LANDS: ArrayLands = { kind: 'array', columns: 6, rows: 6, pitchMm: 0.5, padMm: 0.25, ballMm: 0.3 };

test('a part with even balls goes down as it is; missing, bridged and uneven ones each are a reason', () => {
  const balls = drawn(6, 6, 2).map(({ xMm, yMm }) => ({ xMm, yMm, diameterMm: 0.3, state: 'good' as const }));
  expect(judgeReuse(balls, 0, LANDS, DEFAULT_SITE_PRACTICE)).toMatchObject({ asItIs: true, reasons: [] });
  const spoiled = balls.map((b, i) => (i === 3 ? { ...b, state: 'missing' as const } : b));
  expect(judgeReuse(spoiled, 1, LANDS, DEFAULT_SITE_PRACTICE).reasons).toEqual(['1 ball is missing', '1 bridge']);
  const uneven = balls.map((b, i) => (i === 8 ? { ...b, diameterMm: 0.2 } : b));
  expect(judgeReuse(uneven, 0, LANDS, DEFAULT_SITE_PRACTICE).reasons.join()).toContain('coplanarity');
});

test('paste or spheres: by pitch and spread, or as the house rules', () => {
  const coarse: ArrayLands = { ...LANDS, pitchMm: 0.8, padMm: 0.4, ballMm: 0.45 };
  expect(planReball(coarse, 36, 'SAC305', DEFAULT_SITE_PRACTICE).way).toBe('paste');
  expect(
    planReball({ ...LANDS, pitchMm: 0.4, padMm: 0.2, ballMm: 0.25 }, 36, 'SAC305', DEFAULT_SITE_PRACTICE).way,
  ).toBe('spheres');
  expect(planReball(coarse, 36, 'SAC305', { ...DEFAULT_SITE_PRACTICE, balls: 'spheres' }).why).toContain('House rule');
  // More balls spread further: the extremes of a larger sample.
  const wide = planReball(coarse, 400, 'SAC305', DEFAULT_SITE_PRACTICE);
  expect(wide.expectedSpreadMm).toBeGreaterThan(
    planReball(coarse, 36, 'SAC305', DEFAULT_SITE_PRACTICE).expectedSpreadMm,
  );
});

test('places of a grid without a ball are left out of pads and count', () => {
  const board = demoBoard('heronlog-4-c');
  const pkg = board.packages[partByRef(board, 'U8')!.package];
  const lands = pkg.lands as ArrayLands;
  const fewer = landsOf({ ...pkg, lands: { ...lands, without: ['A1', 'B2'] } });
  expect(fewer).toHaveLength(lands.columns * lands.rows - 2);
  expect(fewer.some((p) => p.pin === 'B2')).toBe(false);
});

test('braid by school and pitch; plastic nearby lowers the iron', () => {
  const steps = (pitchMm: number, plasticNear: string[] = [], practice = DEFAULT_SITE_PRACTICE): string =>
    cleaningPlan({ pitchMm, alloy: 'SAC305', plasticNear }, practice)
      .map((s) => s.what)
      .join(' ');
  expect(steps(0.4)).toContain('no braid');
  expect(steps(0.8)).toContain('Braid with flux');
  expect(steps(0.8, [], { ...DEFAULT_SITE_PRACTICE, braid: 'never' })).toContain('no braid');
  // Iron 380 °C on pads, 300 °C near plastic: common practice, no source.
  expect(steps(0.4)).toContain('380 °C');
  expect(steps(0.4, ['J1'])).toContain('300 °C');
});

test('a plane through heights at the corners: flat, tilted, bent', () => {
  const corners = (heights: number[]) =>
    heights.map((heightMm, i) => ({ xMm: i % 2 === 0 ? -3 : 3, yMm: i < 2 ? -3 : 3, heightMm }));
  expect(judgeFlatness(corners([0.2, 0.2, 0.2, 0.2]), [6, 6], 0.2)).toMatchObject({ holds: true, tiltMm: 0 });
  const tilted = judgeFlatness(corners([0.2, 0.3, 0.2, 0.3]), [6, 6], 0.2)!;
  expect(tilted.tiltMm).toBeCloseTo(0.1, 9);
  expect(tilted.holds).toBe(false);
  expect(tilted.summary).toContain('right');
  const bent = judgeFlatness(corners([0.2, 0.2, 0.2, 0.4]), [6, 6], 0.2)!;
  // One of four corners up by e: the plane takes three quarters, a quarter is left at each (least squares by hand).
  expect(bent.residualMm).toBeCloseTo(0.05, 9);
  expect(bent.summary).toContain('bent');
  expect(judgeFlatness(corners([0.2, 0.2]), [6, 6], 0.2)).toBeUndefined();
  expect(
    judgeFlatness(
      [0, 1, 2].map((k) => ({ xMm: k, yMm: 0, heightMm: 1 })),
      [6, 6],
      0.2,
    ),
  ).toBeUndefined();
});

test('a part pulls itself straight within half a pad (common practice, no source)', () => {
  expect(selfCentring(0.25, 0.5)).toEqual({ offsetMm: 0.125, shareOfPitch: 0.25 });
});
