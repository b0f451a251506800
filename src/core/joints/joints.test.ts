import { demoBoard } from '../../../demo/files';
import { partByRef } from '../board';
import { seededRandom } from '../math';
import {
  areaRatio,
  ballFromPasteMm,
  collapseBall,
  depositMm3,
  metalVolumeFraction,
  planSite,
  transferEfficiency,
} from '.';

test.each([
  [0.3, 0.125, 0.125, 0.201166, 0.160443],
  [0.25, 0.11, 0.11, 0.159417, 0.135843],
  [0.5, 0.2, 0.2, 0.346897, 0.264735],
  [0.6, 0.225, 0.25, 0.419279, 0.317351],
  [0.2, 0.1, 0.09, 0.117474, 0.112096],
])('a ball of %p mm between pads of %p and %p mm radius (closed form of the cut sphere)', (d, a, b, h, radius) => {
  const got = collapseBall(d, a, b);
  expect(got.standoffMm).toBeCloseTo(h, 6);
  expect(got.widestRadiusMm).toBeCloseTo(radius, 6);
});

test('the collapsed volume is the ball’s, by numerical integration of the cut sphere', () => {
  const random = seededRandom(11);
  for (let i = 0; i < 30; i++) {
    const d = 0.2 + 0.5 * random();
    const [a, b] = [d * (0.35 + 0.1 * random()), d * (0.35 + 0.1 * random())];
    const { standoffMm: h } = collapseBall(d, a, b);
    const z0 = (b * b + h * h - a * a) / (2 * h);
    const r2 = a * a + z0 * z0;
    const n = 2000;
    let volume = 0;
    for (let k = 0; k < n; k++) volume += Math.PI * (r2 - (((k + 0.5) / n) * h - z0) ** 2) * (h / n);
    expect(volume / ((Math.PI * d ** 3) / 6)).toBeCloseTo(1, 5);
  }
});

test('paste: metal share by volume (alloy densities) and the two worked deposits', () => {
  expect(metalVolumeFraction(0.885, 'SAC305')).toBeCloseTo(0.5105, 4);
  expect(metalVolumeFraction(0.885, 'Sn63Pb37')).toBeCloseTo(0.4781, 4);
  const round = (d: number) => ({ round: true, lengthMm: d, widthMm: d });
  expect(areaRatio(round(0.28), 0.1)).toBeCloseTo(0.7, 9);
  expect(ballFromPasteMm(depositMm3(round(0.28), 0.1, 0.9), 0.5105)).toBeCloseTo(0.17547, 4);
  expect(areaRatio(round(0.3), 0.12)).toBeCloseTo(0.625, 9);
  expect(ballFromPasteMm(depositMm3(round(0.3), 0.12, 0.85), 0.5105)).toBeCloseTo(0.19156, 4);
});

test('transfer falls below the least area ratio of IPC-7525', () => {
  expect(transferEfficiency(0.7)).toBe(transferEfficiency(0.66));
  expect(transferEfficiency(0.5)).toBeLessThan(transferEfficiency(0.66));
});

test('a leadless controller needs no balls; a ball array does', () => {
  const board = demoBoard('heronlog-4-c');
  const leadless = planSite(board, partByRef(board, 'U4')!, 'SAC305');
  expect(leadless).toMatchObject({ kind: 'leadless', joints: 41, pitchMm: 0.5 });
  const balls = planSite(board, partByRef(board, 'U8')!, 'SAC305');
  expect(balls).toMatchObject({ kind: 'balls', joints: 100 });
  expect(balls.figures.find((f) => f.label === 'Gap between joints')!.good).toBe(true);
});
