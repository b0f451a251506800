import { demoBoard } from '../../../demo/files';
import { partByRef, type Board } from '../board';
import { DEFAULT_SITE_PRACTICE, cleaningPlan, sitePracticeSchema } from './cleaning';
import { planSite } from './site';

const board = demoBoard('heronlog-4-c');
const [leadless, balled] = ['U4', 'U8'].map((ref) => partByRef(board, ref)!);
const figure = (b: Board, ref: string, label: RegExp, practice = DEFAULT_SITE_PRACTICE) =>
  planSite(b, partByRef(b, ref)!, b.alloy, practice).figures.find((f) => label.test(f.label));

test('a leadless part: foil, height, and a share of its centre pad that neither starves nor floats', () => {
  const site = planSite(board, leadless, 'SAC305');
  expect(site.centre!.least).toBeLessThan(site.centre!.take);
  expect(site.centre!.take).toBeLessThan(site.centre!.most);
  expect(site.reason).toContain(`${Math.round(100 * site.centre!.take)} %`);
  expect(site.figures.every((f) => f.good)).toBe(true);
});

test('a balled part: the foil and hole that come nearest to its ball stand with their area ratio', () => {
  const { reball, headline } = planSite(board, balled, 'SAC305');
  const shown = figure(board, 'U8', /^Foil/)!;
  expect(shown.value).toBe(
    `${reball!.stencil!.stencilMm.toFixed(2)}, ${reball!.stencil!.apertureMm.toFixed(2)} mm, ${reball!.stencil!.areaRatio.toFixed(2)}`,
  );
  expect(headline).toMatch(/^100 balls: paste/);
});

test('the house rule decides against the computed way, and says that it is one', () => {
  const spheres = planSite(board, balled, 'SAC305', { ...DEFAULT_SITE_PRACTICE, balls: 'spheres' });
  expect(spheres.headline).toContain('set spheres of 0.45 mm');
  expect(spheres.reason).toContain('House rule');
  const tight = { ...DEFAULT_SITE_PRACTICE, coplanarityMm: 0.02 };
  expect(figure(board, 'U8', /spread/, tight)!.good).toBe(false);
  expect(planSite(board, balled, 'SAC305', tight).reball!.way).toBe('spheres');
});

test('balls that would touch are told', () => {
  const pkg = board.packages[balled.package];
  if (pkg.lands.kind !== 'array') throw new Error('expected an array');
  const crowded: Board = {
    ...board,
    packages: { ...board.packages, [balled.package]: { ...pkg, lands: { ...pkg.lands, pitchMm: 0.5, ballMm: 0.45 } } },
  };
  expect(figure(crowded, 'U8', /^Gap/)!.good).toBe(false);
});

test('a residue that does not belong there is cleaned off twice, whatever the school', () => {
  for (const flux of ['sparing', 'generous'] as const) {
    const steps = cleaningPlan(
      { pitchMm: 0.5, alloy: 'SAC305', plasticNear: [], residue: 'Molten at 140 °C: a low-melt bismuth alloy.' },
      { ...DEFAULT_SITE_PRACTICE, flux },
    );
    expect(steps[1].what).toContain('once more');
    expect(steps[1].why).toContain('bismuth');
    expect(steps[steps.length - 1].why).toContain('flammable');
  }
});

test('house rules outside of what makes sense are refused', () => {
  for (const wrong of [{ braid: 'often' }, { braidFromPitchMm: 0 }, { balls: 'none' }, { coplanarityMm: 2 }])
    expect(sitePracticeSchema.safeParse(wrong).success).toBe(false);
  expect(sitePracticeSchema.parse({})).toEqual(DEFAULT_SITE_PRACTICE);
});
