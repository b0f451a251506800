import { PALETTE, type ColourName } from './palette';

/** Relative luminance and contrast. Source: WCAG 2.1, definitions of relative luminance and contrast ratio. */
function luminance(hex: string): number {
  const [r, g, b] = [1, 3, 5]
    .map((i) => parseInt(hex.slice(i, i + 2), 16) / 255)
    .map((v) => (v <= 0.03928 ? v / 12.92 : ((v + 0.055) / 1.055) ** 2.4));
  return 0.2126 * r + 0.7152 * g + 0.0722 * b;
}

function contrast(a: string, b: string): number {
  const [high, low] = [luminance(a), luminance(b)].sort((x, y) => y - x);
  return (high + 0.05) / (low + 0.05);
}

test('black on white is 21 to 1 (WCAG 2.1)', () => {
  expect(contrast('#000000', '#FFFFFF')).toBeCloseTo(21, 9);
});

const ON_PAPER: ColourName[] = ['ink', 'quiet', 'copperText', 'tinText', 'leaf', 'amberText', 'rust'];
const ON_MAT: ColourName[] = ['matText', 'matLine', 'matCopper', 'matRust'];

describe.each(['light', 'dark'] as const)('%s', (mode) => {
  test.each(ON_PAPER)('%s reads as text on paper and ground (AA, 4.5 to 1)', (name) => {
    for (const ground of ['paper', 'ground'] as const)
      expect(contrast(PALETTE[name][mode], PALETTE[ground][mode])).toBeGreaterThanOrEqual(4.5);
  });

  test.each(ON_MAT)('%s reads on the mat', (name) => {
    expect(contrast(PALETTE[name][mode], PALETTE.mat[mode])).toBeGreaterThanOrEqual(4.5);
  });

  test('the main button reads', () => {
    expect(contrast(PALETTE.ground[mode], PALETTE.copperText[mode])).toBeGreaterThanOrEqual(4.5);
  });
});
