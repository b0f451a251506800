import { performance } from 'node:perf_hooks';
import { inspectBalls } from '../../src/core/inspect';
import { seededRandom, type Random } from '../../src/core/math';
import { note, ratio, section } from '../print';
import { mirrorBallScene } from '../../src/core/inspect/tests/mirror-balls';
import { strangerScene, type StrangerScene } from '../../src/core/inspect/tests/stranger';

const PITCH_MM = 0.5;

/** Two renderers that share no shading with the program's own scenes; no number of the inspection was found on the second. */
const MAKES: readonly (readonly [string, (random: Random) => StrangerScene])[] = [
  ['lit spheres, dark rims, JPEG 60, uneven focus, moved camera, flux', (random) => strangerScene(random, 'dark')],
  ['lit spheres, bright rims, the same camera', (random) => strangerScene(random, 'bright')],
  ['rough mirrors, grain, gamma, JPEG 75', mirrorBallScene],
];

function benchStrangers(pictures: number, first: number): void {
  for (const [make, draw] of MAKES) {
    section(`Ball pictures of another make, ${make}: ${pictures} pictures`);
    const t = {
      sites: 0,
      gone: 0,
      found: 0,
      falseMissing: 0,
      falseSize: 0,
      bridges: 0,
      bridged: 0,
      falseBridges: 0,
      unclear: 0,
    };
    const errors: number[] = [];
    let inside = 0;
    let lost = 0;
    let tookMs = 0;
    for (let k = first; k < first + pictures; k++) {
      const scene = draw(seededRandom(k));
      const start = performance.now();
      const seen = inspectBalls(scene.picture, scene.pattern, { pitchMm: PITCH_MM, ballMm: scene.nominal * PITCH_MM });
      tookMs += performance.now() - start;
      if (!seen) {
        lost += 1;
        continue;
      }
      const key = ([a, b]: readonly [number, number]): string => `${Math.min(a, b)} ${Math.max(a, b)}`;
      const truth = new Set(scene.bridges.map(key));
      const told = new Set(seen.bridges.map(key));
      t.bridges += truth.size;
      t.bridged += [...truth].filter((b) => told.has(b)).length;
      t.falseBridges += [...told].filter((b) => !truth.has(b)).length;
      const touched = new Set(scene.bridges.flat());
      scene.balls.forEach((diameter, i) => {
        const { verdict, diameterMm, diameterSdMm, unclear } = seen.balls[i];
        t.sites += 1;
        t.unclear += Number(unclear);
        if (diameter === null) {
          t.gone += 1;
          t.found += Number(verdict === 'missing' || unclear);
          return;
        }
        if (verdict === 'missing' && !unclear) t.falseMissing += 1;
        if ((verdict === 'small' || verdict === 'large') && !unclear) t.falseSize += 1;
        if (verdict === 'missing' || touched.has(i)) return;
        const off = diameterMm - diameter * PITCH_MM;
        errors.push(off / (diameter * PITCH_MM));
        inside += Number(Math.abs(off) <= 2 * diameterSdMm);
      });
    }
    const mean = errors.reduce((a, b) => a + b, 0) / errors.length;
    const rms = Math.sqrt(errors.reduce((a, b) => a + b * b, 0) / errors.length);
    note(
      `missing ${t.found} of ${t.gone} found or left to the eye; bridges ${t.bridged} of ${t.bridges}, ${t.falseBridges} falsely; ${t.unclear} of ${t.sites} left to the eye; ${lost} patterns not found; ${(tookMs / pictures).toFixed(0)} ms`,
    );
    const percent = (count: number): string => `${((100 * count) / t.sites).toFixed(2)} %`;
    note(
      `falsely missing ${percent(t.falseMissing)} of the sites, of wrong size ${percent(t.falseSize)} (wanted at most 0.3 %)`,
    );
    note(`diameter: bias ${(100 * mean).toFixed(2)} % (wanted within 1), rms ${(100 * rms).toFixed(2)} %`);
    ratio('true diameter inside ± 2 stated deviations', inside / errors.length, '0.92 to 0.98');
  }
}

benchStrangers(Number(process.argv[2] ?? 60), Number(process.argv[3] ?? 0));
