import type { GreyPicture } from '..';
import { fullPattern, sitesOf, type SitePattern } from '../../site';
import { normalDraw, type Random } from '../../math';
import { blur, throughJpeg } from './camera';

/** A picture by a renderer of another make, and what is in it. Lengths in pitches. */
export interface StrangerScene {
  readonly pattern: SitePattern;
  readonly picture: GreyPicture;
  /** Diameter of every ball, in the order of the sites; null where only the pad is left. */
  readonly balls: readonly (number | null)[];
  /** Pairs of sites that are bridged. */
  readonly bridges: readonly (readonly [number, number])[];
  readonly nominal: number;
}

export type Rim = 'dark' | 'bright';

/**
 * Balls as lit spheres: diffuse light, a broken ring of lamps mirrored in them, a rim that darkens or lights up, a shadow where they
 * touch, pads of copper with a halo of flux, uneven focus, a moved camera, and a JPEG of quality 60. Shares no shading with the
 * program's own scenes; parameters are drawn wide.
 */
export function strangerScene(random: Random, rim: Rim): StrangerScene {
  const between = (low: number, high: number): number => low + (high - low) * random();
  const pattern = fullPattern(4 + Math.floor(8 * random()), 4 + Math.floor(8 * random()));
  const sites = sitesOf(pattern);
  const nominal = between(0.5, 0.62);
  const pad = nominal * between(0.74, 0.86);
  const pitch = between(30, 48);
  const balls = sites.map(() => (random() < 0.04 ? null : nominal * (1 + 0.012 * normalDraw(random))));
  const at = (k: number): { x: number; y: number } => sites[k];
  const bridges = sites.flatMap((_, a): [number, number][] => {
    const b = sites.findIndex((s) => s.x === at(a).x + 1 && s.y === at(a).y);
    return b >= 0 && balls[a] && balls[b] && random() < 0.015 ? [[a, b]] : [];
  });
  const [w, h] = [Math.round((pattern.columns + 1.4) * pitch), Math.round((pattern.rows + 1.4) * pitch)];
  const turn = (between(-4, 4) * Math.PI) / 180;
  const [leanX, leanY] = [between(-0.006, 0.006), between(-0.006, 0.006)];
  const toPlane = (px: number, py: number): { x: number; y: number } => {
    const [u, v] = [(px - w / 2) / pitch, (py - h / 2) / pitch];
    const depth = 1 + leanX * u + leanY * v;
    return {
      x: (u * Math.cos(turn) + v * Math.sin(turn)) / depth,
      y: (-u * Math.sin(turn) + v * Math.cos(turn)) / depth,
    };
  };
  const look = {
    mask: between(0.12, 0.3),
    copper: between(0.35, 0.6),
    ambient: between(0.12, 0.22),
    diffuse: between(0.3, 0.5),
    power: between(0.6, 1.4),
    rim: between(0.15, 0.45),
    ring: between(0.2, 0.5),
    ringAt: between(0.25, 0.55),
    ringWidth: between(0.05, 0.12),
    lamps: 6 + Math.floor(6 * random()),
    shadow: between(0.1, 0.35),
    flux: { x: between(-3, 3), y: between(-3, 3), radius: between(1, 2.5), takes: between(0.05, 0.2) },
    halo: between(0.02, 0.1),
  };
  const columnOf = new Map(sites.map((s, i) => [`${s.x},${s.y}`, i]));
  const half = [(pattern.columns - 1) / 2, (pattern.rows - 1) / 2];
  const level = (x: number, y: number): number => {
    let value = look.mask * (1 + 0.08 * Math.sin(13 * x + 3 * y) * Math.cos(9 * y));
    const sx = Math.round(x + half[0]) - half[0];
    const sy = Math.round(y + half[1]) - half[1];
    const i = columnOf.get(`${sx},${sy}`);
    if (i !== undefined) {
      const d = Math.hypot(x - sx, y - sy);
      const r = (balls[i] ?? 0) / 2;
      if (d < pad / 2) value = look.copper * (1 + 0.06 * Math.sin(23 * x) * Math.sin(19 * y));
      if (r > 0) {
        if (d >= r)
          value *= 1 - look.shadow * Math.exp(-(d - r) / 0.05) + look.halo * Math.exp(-(((d - r - 0.06) / 0.03) ** 2));
        else value = ball(d / r, Math.atan2(y - sy, x - sx));
      }
    }
    for (const [a, b] of bridges) {
      const along = (x - at(a).x) / (at(b).x - at(a).x);
      const across = Math.abs(y - at(a).y);
      if (along > 0.2 && along < 0.8 && across < 0.13) value = Math.max(value, ball(across / 0.13, 0.4));
    }
    const film = Math.hypot(x - look.flux.x, y - look.flux.y);
    return film < look.flux.radius ? value * (1 - look.flux.takes) + 0.03 : value;
  };
  function ball(share: number, angle: number): number {
    const up = Math.sqrt(Math.max(0, 1 - share * share));
    const edge = rim === 'dark' ? -look.rim * share ** 6 : look.rim * share ** 8;
    const lamp = 0.6 + 0.4 * Math.cos(look.lamps * angle);
    const mirrored = look.ring * lamp * Math.exp(-(((share - look.ringAt) / look.ringWidth) ** 2));
    return Math.max(
      0.02,
      look.ambient + look.diffuse * up ** look.power * (1 + edge) + (rim === 'bright' ? 0.5 * edge : 0) + mirrored,
    );
  }
  const light = new Float32Array(w * h);
  for (let y = 0; y < h; y++)
    for (let x = 0; x < w; x++) {
      let sum = 0;
      for (const dx of [-0.33, 0, 0.33])
        for (const dy of [-0.33, 0, 0.33]) {
          const p = toPlane(x + dx, y + dy);
          sum += level(p.x, p.y);
        }
      light[y * w + x] = sum / 9;
    }
  const sharp = blur(light, w, h, between(0.5, 1));
  const soft = blur(light, w, h, between(1, 1.8));
  const [moveX, moveY] = [Math.round(between(0, 2)), Math.round(between(0, 1))];
  const levels = new Float32Array(w * h);
  for (let y = 0; y < h; y++)
    for (let x = 0; x < w; x++) {
      const out = Math.min(1, Math.hypot(x / w - 0.5, y / h - 0.5));
      const mixed = (k: number): number => (1 - out) * sharp[k] + out * soft[k];
      let sum = 0;
      for (let m = 0; m <= 2; m++) {
        const [qx, qy] = [
          Math.min(w - 1, x + Math.round((m * moveX) / 2)),
          Math.min(h - 1, y + Math.round((m * moveY) / 2)),
        ];
        sum += mixed(qy * w + qx) / 3;
      }
      levels[y * w + x] = 255 * sum + 3 * normalDraw(random);
    }
  return { pattern, picture: throughJpeg(levels, w, h, 60), balls, bridges, nominal };
}
