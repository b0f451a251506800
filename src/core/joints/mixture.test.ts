import { mixSolders, residueMeltingAt, solderByName } from './mixture';

const mm3 = (name: string, volumeMm3: number) => ({ alloy: solderByName(name)!, volumeMm3 });

test('an alloy alone keeps its own range (published alloy tables, values from memory)', () => {
  expect(mixSolders([mm3('SAC305', 1), mm3('SAC305', 2)])).toMatchObject({
    solidusC: 217,
    liquidusC: 220,
    isRange: false,
    warnings: [],
  });
});

test('composition by mass from volumes and densities', () => {
  // 1 mm³ of each: 8.4 mg with 37 % lead and 7.38 mg without.
  const { weights, massMg } = mixSolders([mm3('Sn63Pb37', 1), mm3('SAC305', 1)]);
  expect(massMg).toBeCloseTo(15.78, 9);
  expect(weights.Pb).toBeCloseTo((0.37 * 8.4) / 15.78, 9);
  expect(Object.values(weights).reduce((s, w) => s + w, 0)).toBeCloseTo(1, 9);
});

test('leaded into lead-free melts between the two, by the tin–lead diagram: eutectic 183 °C at 61.9 % tin', () => {
  const some = mixSolders([mm3('Sn63Pb37', 1), mm3('Sn99.3Cu0.7', 1)]);
  expect(some.isRange).toBe(false);
  expect(some.solidusC).toBe(183);
  expect(some.liquidusC).toBeGreaterThan(193);
  expect(some.liquidusC).toBeLessThan(219);
  const more = mixSolders([mm3('Sn63Pb37', 5), mm3('Sn99.3Cu0.7', 1)]);
  expect(more.liquidusC).toBeLessThan(some.liquidusC);
});

test('other metals: only the range of what went in, and it says so', () => {
  const mixed = mixSolders([mm3('SAC305', 1), mm3('Sn42Bi58', 1)]);
  expect(mixed).toMatchObject({ isRange: true, solidusC: 138, liquidusC: 220 });
  expect(mixed.warnings.join()).toContain('138 °C');
});

test('bismuth with lead is a warning, not a number: a ternary eutectic lies near 96 °C', () => {
  const mixed = mixSolders([mm3('Sn63Pb37', 1), mm3('Sn42Bi58', 0.1)]);
  expect(mixed.warnings).toHaveLength(1);
  expect(mixed.warnings[0]).toContain('96 °C');
  expect(mixed.isRange).toBe(true);
});

test('residues by where they melt', () => {
  expect(residueMeltingAt(98, 217)).toContain('bismuth and lead');
  expect(residueMeltingAt(140, 217)).toContain('bismuth');
  expect(residueMeltingAt(184, 217)).toContain('leaded');
  expect(residueMeltingAt(215, 217)).toBeUndefined();
  expect(residueMeltingAt(181, 183)).toBeUndefined();
});
