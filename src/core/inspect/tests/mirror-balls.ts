import { fullPattern, sitesOf } from '../../site';
import { normalDraw, type Random } from '../../math';
import { blur, throughJpeg } from './camera';
import type { StrangerScene } from './stranger';

type Vector = readonly [number, number, number];

const dot = (a: Vector, b: Vector): number => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];

/**
 * Balls as rough mirrors: every point of a sphere shows what its normal reflects: sky, a ring of lamps or a tube beside the part, and near
 * the rim the part itself, on which it stands in a soft shadow; grain in the light, vignetting, the camera's gamma, JPEG 75. Made after the
 * inspection's numbers were found, and no number was found on it. Lengths in pitches.
 */
export function mirrorBallScene(random: Random): StrangerScene {
  const between = (low: number, high: number): number => low + (high - low) * random();
  const pattern = fullPattern(4 + Math.floor(9 * random()), 4 + Math.floor(7 * random()));
  const sites = sitesOf(pattern);
  const nominal = between(0.48, 0.64);
  const pad = nominal * between(0.7, 0.85);
  const balls = sites.map(() => (random() < 0.04 ? null : nominal * (1 + 0.01 * normalDraw(random))));
  const bridges = sites.flatMap((site, a): [number, number][] => {
    const b = sites.findIndex((s) => s.y === site.y + 1 && s.x === site.x);
    return b >= 0 && balls[a] && balls[b] && random() < 0.015 ? [[a, b]] : [];
  });
  const light = {
    part: between(0.03, 0.1),
    pads: between(0.2, 0.45),
    sky: between(0.1, 0.3),
    lamps: between(0.6, 1.4),
    lampsAt: between(0.55, 0.85),
    lampsWide: between(0.04, 0.12),
    tube: random() < 0.3 ? between(0.3, 0.8) : 0,
    tubeTowards: between(0, 2 * Math.PI),
    reflects: between(0.6, 0.9),
    matt: between(0.05, 0.25),
    shade: between(0.2, 0.6),
  };
  /** What lies in a direction that a ball mirrors. */
  const surroundings = (d: Vector): number => {
    if (d[2] < 0) return light.part * (1 - 0.5 * d[2]);
    const lamps = light.lamps * Math.exp(-(((d[2] - light.lampsAt) / light.lampsWide) ** 2));
    const side = d[0] * Math.cos(light.tubeTowards) + d[1] * Math.sin(light.tubeTowards);
    return light.sky * (0.4 + 0.6 * d[2]) + lamps + light.tube * Math.exp(-(((side - 0.6) / 0.12) ** 2));
  };
  const LAMP: Vector = [0.2, -0.3, 0.93];
  const onBall = (u: number, v: number): number => {
    const n: Vector = [u, v, Math.sqrt(Math.max(0, 1 - u * u - v * v))];
    const mirrored: Vector = [2 * n[2] * n[0], 2 * n[2] * n[1], 2 * n[2] * n[2] - 1];
    return light.reflects * surroundings(mirrored) + light.matt * Math.max(0, dot(n, LAMP));
  };
  const at = new Map(sites.map((s, i) => [`${s.x},${s.y}`, i]));
  const half = [(pattern.columns - 1) / 2, (pattern.rows - 1) / 2];
  const level = (x: number, y: number): number => {
    for (const [a, b] of bridges) {
      const along = (y - sites[a].y) / (sites[b].y - sites[a].y);
      if (along > 0.15 && along < 0.85 && Math.abs(x - sites[a].x) < 0.14) return onBall((x - sites[a].x) / 0.14, 0);
    }
    const [sx, sy] = [Math.round(x + half[0]) - half[0], Math.round(y + half[1]) - half[1]];
    const i = at.get(`${sx},${sy}`);
    const part = light.part * (1 + 0.15 * Math.sin(31 * x + 7 * y) * Math.sin(17 * y - 5 * x));
    if (i === undefined) return part;
    const [dx, dy] = [x - sx, y - sy];
    const distance = Math.hypot(dx, dy);
    const radius = (balls[i] ?? 0) / 2;
    if (distance < radius) return onBall(dx / radius, dy / radius);
    const shaded = radius > 0 ? 1 - light.shade * Math.exp(-(distance - radius) / 0.07) : 1;
    return shaded * (distance < pad / 2 ? light.pads * (0.9 + 0.1 * Math.cos(40 * dx)) : part);
  };
  const pitch = between(28, 46);
  const [w, h] = [Math.round((pattern.columns + 1.2) * pitch), Math.round((pattern.rows + 1.2) * pitch)];
  const turn = between(-0.08, 0.08);
  const lean = between(-0.008, 0.008);
  const field = new Float32Array(w * h);
  const FINE = 4;
  for (let k = 0; k < w * h; k++) {
    let sum = 0;
    for (let s = 0; s < FINE * FINE; s++) {
      const px = (k % w) + ((s % FINE) + 0.5) / FINE - 0.5 - w / 2;
      const py = Math.floor(k / w) + (Math.floor(s / FINE) + 0.5) / FINE - 0.5 - h / 2;
      const depth = pitch * (1 + (lean * py) / pitch);
      sum += level(
        (px * Math.cos(turn) + py * Math.sin(turn)) / depth,
        (py * Math.cos(turn) - px * Math.sin(turn)) / depth,
      );
    }
    field[k] = sum / (FINE * FINE);
  }
  const soft = blur(field, w, h, between(0.6, 1.5));
  const exposure = between(0.7, 1.1);
  const levels = soft.map((value, k) => {
    const out = Math.hypot((k % w) / w - 0.5, Math.floor(k / w) / h - 0.5);
    const lit = Math.max(0, value * exposure * (1 - 0.5 * out * out) + 0.01 * normalDraw(random));
    return 255 * Math.min(1, lit) ** (1 / 2.2);
  });
  return { pattern, picture: throughJpeg(levels, w, h, 75), balls, bridges, nominal };
}
