import { performance } from 'node:perf_hooks';
import {
  NO_TALLY,
  drawCase,
  inspectBalls,
  renderScene,
  scored,
  type Inspection,
  type Scene,
} from '../../src/core/inspect';
import { seededRandom } from '../../src/core/math';
import { note, section } from '../print';
import { byCircleTransform } from './circle-transform';

const PITCH_MM = 0.5;

/** Pictures drawn with known truth: ours, and a plain circle transform that is even told where the pattern lies. */
async function benchBalls(pictures: number, first: number): Promise<void> {
  section(
    `Ball inspection: ${pictures} drawn pictures of 4 to 400 sites, tilt, blur, noise, hair, glare, one defect in ten`,
  );
  const transform = await byCircleTransform();
  let [ours, theirs] = [NO_TALLY, NO_TALLY];
  let [lost, tookMs, unclear] = [0, 0, 0];
  for (let k = first; k < first + pictures; k++) {
    const random = seededRandom(k);
    const { scene, sizes } = drawCase(random);
    const picture = renderScene(scene, random);
    const start = performance.now();
    const seen = inspectBalls(picture, scene.pattern, { pitchMm: PITCH_MM, ballMm: sizes.ball * PITCH_MM });
    tookMs += performance.now() - start;
    if (!seen) lost += 1;
    unclear += seen?.balls.filter((b) => b.unclear).length ?? 0;
    const before = ours;
    ours = scored(ours, scene, seen, PITCH_MM);
    if (ours.missing.false > before.missing.false + 1 || ours.bridged.false > before.bridged.false + 1 || !seen) {
      note(`picture ${k}: ${wordsOf(scene, seen)}`);
    }
    theirs = scored(theirs, scene, transform(picture, scene, sizes, PITCH_MM), PITCH_MM);
  }
  for (const [who, t] of [
    ['ours', ours],
    ['circle transform (OpenCV), given the pattern’s place', theirs],
  ] as const) {
    note(
      `${who}: missing ${t.missing.found} of ${t.missing.there} found, ${t.missing.false} of ${t.sites} falsely; bridges ${t.bridged.found} of ${t.bridged.there}, ${t.bridged.false} falsely; diameter ${(100 * Math.sqrt(t.squared / t.measured)).toFixed(2)} % of pitch (rms, wanted 2)`,
    );
  }
  note(
    `pattern not found in ${lost}; ${unclear} sites left to the eye; ${(tookMs / pictures).toFixed(0)} ms a picture`,
  );
}

const wordsOf = (scene: Scene, seen: Inspection | undefined): string =>
  `${scene.pattern.columns} × ${scene.pattern.rows}, ${scene.balls.length} sites, ${seen ? `${seen.balls.filter((b) => b.verdict === 'missing').length} told missing of ${scene.balls.filter((b) => !b).length}` : 'pattern not found'}`;

await benchBalls(Number(process.argv[2] ?? 300), Number(process.argv[3] ?? 0));
