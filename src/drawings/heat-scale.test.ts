import { SCALE_HIGH_C, SCALE_LOW_C, heatColour, heatGradient } from './heat-scale';

/** Relative luminance. Source: WCAG 2.1. */
const luminance = ([r, g, b]: readonly number[]): number => {
  const [x, y, z] = [r, g, b].map((v) => v / 255).map((v) => (v <= 0.03928 ? v / 12.92 : ((v + 0.055) / 1.055) ** 2.4));
  return 0.2126 * x + 0.7152 * y + 0.0722 * z;
};

/** What a person without red or without green cones sees. Source: Viénot, Brettel & Mollon (1999), linear-light matrices (from memory). */
const DEUTAN = [
  [0.29275, 0.70725, 0],
  [0.29275, 0.70725, 0],
  [-0.02234, 0.02234, 1],
];

const temps = Array.from({ length: 40 }, (_, i) => SCALE_LOW_C + (i / 39) * (SCALE_HIGH_C - SCALE_LOW_C));

test('hotter is always lighter, so that the field reads without colour too', () => {
  const lights = temps.map((t) => luminance(heatColour(t)));
  for (let i = 1; i < lights.length; i++) expect(lights[i]).toBeGreaterThan(lights[i - 1]);
});

test('equal steps of temperature are about equal steps of lightness (perceptually even)', () => {
  // CIE 1976 lightness of the luminance.
  const lightness = (y: number): number => (y > 0.008856 ? 116 * Math.cbrt(y) - 16 : 903.3 * y);
  const values = temps.map((t) => lightness(luminance(heatColour(t))));
  const steps = values.slice(1).map((v, i) => v - values[i]);
  const mean = steps.reduce((s, v) => s + v, 0) / steps.length;
  for (const step of steps) expect(Math.abs(step - mean)).toBeLessThan(0.6 * mean);
});

test('the order holds for eyes without green cones', () => {
  const seen = temps.map((t) => {
    const linear = heatColour(t).map((v) => (v / 255) ** 2.2);
    const mixed = DEUTAN.map((row) => row.reduce((s, w, k) => s + w * linear[k], 0));
    return 0.2126 * mixed[0] + 0.7152 * mixed[1] + 0.0722 * mixed[2];
  });
  for (let i = 1; i < seen.length; i++) expect(seen[i]).toBeGreaterThan(seen[i - 1]);
});

test('the scale is clamped at its ends, and the legend shows the same colours', () => {
  expect(heatColour(-40)).toEqual(heatColour(SCALE_LOW_C));
  expect(heatColour(900)).toEqual(heatColour(SCALE_HIGH_C));
  expect(heatGradient().startsWith(`linear-gradient(to right, rgb(${heatColour(SCALE_LOW_C).join(',')})`)).toBe(true);
});
