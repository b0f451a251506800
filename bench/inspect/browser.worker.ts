import { drawScene, inspectBalls, renderScene, usefulSidePx } from '../../src/core/inspect';
import { fullPattern } from '../../src/core/site';
import { seededRandom } from '../../src/core/math';
import { coloured } from '../../src/devices/microscope';
import { greyPicture } from '../../src/workers/inspect/grey-picture';

export interface LookReply {
  readonly megapixels: number;
  readonly balls: number;
  /** From the file to the verdict, ms, look by look. */
  readonly tookMs: readonly number[];
  readonly missing: readonly [told: number, true_: number];
}

const PITCH_PX = 73;
const LOOKS = 4;

/** Draws an array of 400 balls, enlarges it to a camera's 12 megapixels, and looks it over as the application does. */
self.onmessage = async (): Promise<void> => {
  const pattern = fullPattern(20, 20);
  const random = seededRandom(7);
  const scene = drawScene(pattern, { ball: 0.58, pad: 0.46 }, PITCH_PX, random);
  const small = renderScene(scene, random);
  const [width, height] = [2 * small.width, 2 * small.height];
  const drawn = new OffscreenCanvas(small.width, small.height);
  drawn.getContext('2d')!.putImageData(new ImageData(coloured(small), small.width, small.height), 0, 0);
  const large = new OffscreenCanvas(width, height);
  large.getContext('2d')!.drawImage(drawn, 0, 0, width, height);
  const file = await large.convertToBlob({ type: 'image/jpeg', quality: 0.9 });
  const tookMs: number[] = [];
  let told = 0;
  for (let k = 0; k < LOOKS; k++) {
    const start = performance.now();
    const { grey } = greyPicture(await createImageBitmap(file), usefulSidePx(pattern));
    const seen = inspectBalls(grey, pattern, { pitchMm: 0.5, ballMm: 0.29 });
    tookMs.push(performance.now() - start);
    told = seen?.balls.filter((b) => b.verdict === 'missing').length ?? -1;
  }
  const reply: LookReply = {
    megapixels: (width * height) / 1e6,
    balls: 400,
    tookMs,
    missing: [told, scene.balls.filter((b) => !b).length],
  };
  self.postMessage(reply);
};
