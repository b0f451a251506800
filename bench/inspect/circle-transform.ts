import { createRequire } from 'node:module';
import type { BallSizes, GreyPicture, Inspection, Scene } from '../../src/core/inspect';
import { mapPoint, sitesOf } from '../../src/core/site';

/** The part of OpenCV that is used. */
interface Vision {
  matFromArray(rows: number, columns: number, kind: number, data: ArrayLike<number>): Mat;
  Mat: new () => Mat;
  GaussianBlur(from: Mat, to: Mat, size: unknown, sigma: number): void;
  Size: new (width: number, height: number) => unknown;
  HoughCircles(
    from: Mat,
    to: Mat,
    method: number,
    dp: number,
    minDist: number,
    high: number,
    votes: number,
    minRadius: number,
    maxRadius: number,
  ): void;
  HOUGH_GRADIENT: number;
  CV_8UC1: number;
}
interface Mat {
  readonly cols: number;
  readonly data32F: Float32Array;
  delete(): void;
}

type Transform = (picture: GreyPicture, scene: Scene, sizes: BallSizes, pitchMm: number) => Inspection;

/**
 * The edge threshold of its documentation; votes and the least radius, which has to keep pads out, by trial: fewer votes or a
 * smaller radius take pads for balls, more lose balls.
 */
const HIGH = 100;
const VOTES = 18;
const LEAST_RADIUS = 0.9;

/**
 * What a plain circle transform says: circles of a ball's size over the whole picture. It is told the true place of the
 * pattern, so that only finding and measuring circles is compared; bridges it cannot tell.
 */
export async function byCircleTransform(): Promise<Transform> {
  const cv = createRequire(import.meta.url)('@techstark/opencv-js') as Vision;
  // Its module turns into a promise of itself when it is ready: never awaited, only looked at.
  while (cv.Mat === undefined) await new Promise((resolve) => setTimeout(resolve, 50));
  return (picture, scene, sizes, pitchMm) => {
    const { width, height, grey } = picture;
    const pitchPx = Math.sqrt(
      Math.abs(scene.toPicture[0] * scene.toPicture[4] - scene.toPicture[1] * scene.toPicture[3]),
    );
    const from = cv.matFromArray(height, width, cv.CV_8UC1, grey);
    const [smooth, circles] = [new cv.Mat(), new cv.Mat()];
    cv.GaussianBlur(from, smooth, new cv.Size(5, 5), 1);
    const radius = (sizes.ball / 2) * pitchPx;
    cv.HoughCircles(
      smooth,
      circles,
      cv.HOUGH_GRADIENT,
      1,
      0.6 * pitchPx,
      HIGH,
      VOTES,
      Math.floor(LEAST_RADIUS * radius),
      Math.ceil(1.3 * radius),
    );
    const found = Array.from({ length: circles.cols }, (_, k) => ({
      x: circles.data32F[3 * k],
      y: circles.data32F[3 * k + 1],
      radius: circles.data32F[3 * k + 2],
    }));
    [from, smooth, circles].forEach((mat) => mat.delete());
    const sites = sitesOf(scene.pattern);
    const balls = sites.map((site) => {
      const at = mapPoint(scene.toPicture, site);
      const circle = found.find((c) => Math.hypot(c.x - at.x, c.y - at.y) < 0.3 * pitchPx);
      return {
        ...site,
        verdict: circle ? ('good' as const) : ('missing' as const),
        diameterMm: circle ? ((2 * circle.radius) / pitchPx) * pitchMm : 0,
        diameterSdMm: 0,
        offsetMm: { x: 0, y: 0 },
        brightness: 1,
        unclear: false,
      };
    });
    return {
      toPicture: scene.toPicture,
      mmPerPx: pitchMm / pitchPx,
      balls,
      bridges: [],
      solderDebris: [],
      usualMm: sizes.ball * pitchMm,
      sizeInDoubt: false,
    };
  };
}
