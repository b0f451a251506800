/** Paste or spheres, reuse, and what a site's figures say: each rule at its edge. */
import { demoBoard } from '../../../demo/files';
import { partByRef, type Board } from '../board';
import { DEFAULT_SITE_PRACTICE, type SitePractice } from './cleaning';
import { judgeReuse, planReball, type ArrayLands, type MeasuredBall } from './reball';
import { planSite } from './site';

const board = demoBoard('heronlog-4-c');

describe('balls', () => {
  const pkg = board.packages.BGA100;
  const lands = pkg.lands as ArrayLands;
  const plan = (of: Partial<ArrayLands>, by: Partial<SitePractice> = {}, count = 100) =>
    planReball({ ...lands, ...of }, count, 'SAC305', { ...DEFAULT_SITE_PRACTICE, ...by });
  const fine = { pitchMm: 0.4, padMm: 0.25, ballMm: 0.25 };

  test('the reason is the first rule that decides', () => {
    expect(plan({}).why).toBe('Coarse enough, and the spread of printed balls stays within coplanarity.');
    expect(plan({}, { balls: 'spheres' }).why).toBe('House rule: spheres.');
    expect(plan({}, { balls: 'paste' })).toMatchObject({ way: 'paste', why: 'House rule: paste.' });
    expect(plan({}, { balls: 'paste', coplanarityMm: 0.02 })).toMatchObject({
      way: 'paste',
      why: 'House rule: paste, though the spread check fails.',
    });
    expect(plan({}, { coplanarityMm: 0.02 })).toMatchObject({
      way: 'spheres',
      why: 'The spread of printed balls breaks coplanarity.',
    });
    expect(plan(fine)).toMatchObject({ way: 'spheres', why: 'At 0.4 mm pitch deposits vary too much to be trusted.' });
    expect(plan({ ballMm: 0.75 })).toMatchObject({
      way: 'spheres',
      why: expect.stringMatching(/^Paste gives 0\.\d\d mm at best, 0\.75 is wanted\.$/),
    });
    expect(plan({ pitchMm: 0.2, padMm: 0.05, ballMm: 0.1 }, { balls: 'paste' })).toMatchObject({
      way: 'spheres',
      why: 'No foil releases paste for these pads.',
    });
  });

  test('half a millimetre is coarse', () => {
    expect(plan({ ...fine, pitchMm: 0.5, ballMm: 0.3, padMm: 0.27 }).why).not.toMatch(/pitch deposits/);
    expect(plan({ ...fine, pitchMm: 0.49, ballMm: 0.3, padMm: 0.27 }).why).toMatch(/pitch deposits/);
  });

  test('minutes and material: spheres by their number, paste by its passes and its volume, which is twice the metal', () => {
    const spheres = plan({}, { balls: 'spheres' }, 200);
    expect(spheres.minutes).toBeCloseTo(8 + 0.06 * 200 + 5, 9);
    expect(spheres.cost).toBeCloseTo(0.4, 9);
    const paste = plan({}, { balls: 'paste' }, 200);
    const { passes, ballMm } = paste.stencil!;
    expect(paste.minutes).toBeCloseTo(6 + 2 * passes + 5, 9);
    expect(paste.cost).toBeCloseTo(0.004 * 200 * 2 * ((Math.PI * ballMm ** 3) / 6), 9);
  });

  test('of more balls the highest and the lowest lie further apart', () => {
    const ratio = plan({}, {}, 400).expectedSpreadMm / plan({}, {}, 30).expectedSpreadMm;
    expect(ratio).toBeCloseTo(Math.sqrt(Math.log(200) / Math.log(15)), 9);
  });

  test('each state of a ball is a reason, one and several in their grammar, and two of them in the headline', () => {
    const grid = (states: readonly MeasuredBall['state'][]): MeasuredBall[] =>
      states.map((state, i) => ({
        xMm: (i % 4) * lands.pitchMm,
        yMm: Math.floor(i / 4) * lands.pitchMm,
        diameterMm: lands.ballMm,
        state,
      }));
    const good = Array.from({ length: 12 }, () => 'good' as const);
    const judged = (states: readonly MeasuredBall['state'][], bridges = 0) =>
      judgeReuse(grid([...states, ...good]), bridges, lands, DEFAULT_SITE_PRACTICE);
    expect(judged([])).toMatchObject({ asItIs: true, headline: 'Can go down as it is', reasons: [] });
    expect(judged(['missing']).reasons).toEqual(['1 ball is missing']);
    expect(judged(['missing', 'missing']).reasons).toEqual(['2 balls are missing']);
    expect(judged(['small', 'large', 'beside'], 1).reasons).toEqual([
      '1 bridge',
      '1 ball is too small',
      '1 ball is too large',
      '1 ball stands beside its pad',
    ]);
    expect(judged(['small', 'small', 'large', 'large', 'beside', 'beside'], 2)).toMatchObject({
      asItIs: false,
      headline: 'Rework: 2 bridges, 2 balls are too small',
    });
    const none = judgeReuse(grid(['missing', 'missing']), 0, lands, DEFAULT_SITE_PRACTICE);
    expect([none.uniformity, none.asItIs]).toEqual([undefined, false]);
  });

  test('a site’s figures are good where they hold, and each says its own', () => {
    const labels = planSite(board, partByRef(board, 'U8')!, 'SAC305').figures.map((f) => [f.label, f.good]);
    expect(labels).toEqual([
      ['Standoff after collapse', true],
      ['Gap between joints', true],
      ['Ball from paste', true],
      ['Their spread in height', true],
      ['Foil, hole, area ratio', true],
    ]);
    const on = (of: Partial<ArrayLands>): Board => ({
      ...board,
      packages: { ...board.packages, BGA100: { ...pkg, lands: { ...lands, ...of } } },
    });
    const bad = (of: Partial<ArrayLands>): string[] => {
      const there = on(of);
      return planSite(there, partByRef(there, 'U8')!, 'SAC305').figures.flatMap((f) => (f.good ? [] : [f.label]));
    };
    expect(bad({ ballMm: 0.75, pitchMm: 2 })).toContain('Ball from paste');
    const none = planSite(on({ pitchMm: 0.2, padMm: 0.05, ballMm: 0.06 }), partByRef(board, 'U8')!, 'SAC305');
    expect(none.figures.map((f) => [f.label, f.value, f.good]).slice(0, 1)).toEqual([
      ['Standoff after collapse', expect.any(String), false],
    ]);
    expect(none.figures.find((f) => f.label === 'Ball from paste')).toMatchObject({
      value: 'no foil releases',
      good: false,
    });
    expect(none.figures.find((f) => f.label === 'Their spread in height')).toMatchObject({ value: '–', good: false });
    expect(none.figures).toHaveLength(4);
  });

  test('a leadless site: its joints, its pitch, and figures from its smallest pad', () => {
    const site = planSite(board, partByRef(board, 'U4')!, 'SAC305');
    expect([site.kind, site.joints, site.pitchMm]).toEqual(['leadless', 41, 0.5]);
    expect(site.headline).toBe('40 pads and a centre pad: tin and level, no balls');
    // 0.6 × 0.28 mm pads in a foil of 0.1 mm: 0.168 over 0.2 × 0.88.
    expect(site.figures[0]).toEqual({
      label: 'Area ratio, 0.10 mm foil',
      value: (0.168 / 0.176).toFixed(2),
      good: true,
    });
    expect(site.figures.map((f) => f.good)).toEqual([true, true, true, true]);
    const quad = board.packages.QFN40;
    const bare = { ...quad, lands: { ...quad.lands, centreMm: undefined } } as typeof quad;
    const without = planSite(
      { ...board, packages: { ...board.packages, QFN40: bare } },
      partByRef(board, 'U4')!,
      'SAC305',
    );
    expect(without).toMatchObject({
      joints: 40,
      centre: undefined,
      reason: 'A tinned, level surface is all it needs.',
    });
    expect(without.headline).toBe('40 pads: tin and level, no balls');
    expect(without.figures).toHaveLength(2);
  });
});
