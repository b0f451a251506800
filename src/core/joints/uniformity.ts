import { collapseBall } from './collapse';

/** A ball on its part, pad side up: where it stands and how high it is, mm. */
export interface StandingBall {
  readonly xMm: number;
  readonly yMm: number;
  readonly heightMm: number;
}

/** The plane that the part rests on when it is set down: z = a + b x + c y over the pad plane, mm. */
export interface SeatingPlane {
  readonly a: number;
  readonly b: number;
  readonly c: number;
  /** The balls that carry the part, by position; three, or fewer where balls stand in a row. */
  readonly carriers: readonly number[];
}

export interface Uniformity {
  readonly plane: SeatingPlane;
  /** How far each ball stays from the plane, mm. */
  readonly gapsMm: readonly number[];
  /** The largest of them: coplanarity. */
  readonly coplanarityMm: number;
  /** Balls whose gap is more than the limit. */
  readonly opens: readonly number[];
  readonly limitMm: number;
}

/** Coplanarity limits by pitch, mm. Source: package-outline practice, from memory. */
export const coplanarityLimitMm = (pitchMm: number): number => (pitchMm <= 0.5 ? 0.08 : pitchMm <= 0.65 ? 0.1 : 0.15);

/** Height of a ball melted onto a pad of the part alone: a cap, which is the collapsed ball with no pad above. */
export const ballHeightMm = (ballMm: number, padRadiusMm: number): number =>
  collapseBall(ballMm, padRadiusMm, 0).standoffMm;

/** How far the balls miss the plane that the part rests on. @param balls at least one. */
export function judgeUniformity(balls: readonly StandingBall[], limitMm: number): Uniformity {
  const plane = seatingPlane(balls);
  const gapsMm = balls.map((ball) => plane.a + plane.b * ball.xMm + plane.c * ball.yMm - ball.heightMm);
  return {
    plane,
    gapsMm,
    coplanarityMm: Math.max(...gapsMm),
    opens: gapsMm.flatMap((gap, i) => (gap > limitMm ? [i] : [])),
    limitMm,
  };
}

const CLOSE_MM = 1e-9;
/** Planes through few balls are tried one by one; each round adds the ball that sticks out most. */
const MOST_ROUNDS = 60;

/**
 * The lowest plane over all balls above their middle: the facet of their upper hull over the centre of gravity. A small set
 * of balls is solved by trying all threes (where the middle lies right over the line between two, either side will do); the ball that sticks out most is added until none does.
 */
export function seatingPlane(balls: readonly StandingBall[]): SeatingPlane {
  const middle = {
    xMm: balls.reduce((s, b) => s + b.xMm, 0) / balls.length,
    yMm: balls.reduce((s, b) => s + b.yMm, 0) / balls.length,
  };
  const first = extremes(balls);
  const active = new Set(first);
  let plane = lowestOver(balls, [...active], middle);
  for (let round = 0; round < MOST_ROUNDS; round++) {
    const out = balls.map((b) => b.heightMm - plane.a - plane.b * b.xMm - plane.c * b.yMm);
    const worst = out.indexOf(Math.max(...out));
    if (out[worst] <= CLOSE_MM || active.has(worst)) break;
    active.add(worst);
    plane = lowestOver(balls, [...active], middle);
  }
  return plane;
}

/** The outermost balls and the highest one: enough to begin with. */
function extremes(balls: readonly StandingBall[]): number[] {
  const by = (value: (b: StandingBall) => number): number =>
    balls.reduce((best, b, i) => (value(b) > value(balls[best]) ? i : best), 0);
  const diagonal = [1, -1].flatMap((s) => [1, -1].map((t) => by((b) => s * b.xMm + t * b.yMm)));
  return [...new Set([...diagonal, by((b) => b.heightMm)])];
}

/** Over the active balls: the plane that covers them all and is lowest over the middle. */
function lowestOver(
  balls: readonly StandingBall[],
  active: readonly number[],
  middle: { readonly xMm: number; readonly yMm: number },
): SeatingPlane {
  const highest = active.reduce((a, b) => (balls[b].heightMm > balls[a].heightMm ? b : a));
  let best: SeatingPlane = { a: balls[highest].heightMm, b: 0, c: 0, carriers: [highest] };
  let lowest = best.a;
  for (let i = 0; i < active.length; i++) {
    for (let j = i + 1; j < active.length; j++) {
      for (let k = j + 1; k < active.length; k++) {
        const carriers = [active[i], active[j], active[k]];
        const plane = planeThrough(carriers.map((n) => balls[n]));
        if (!plane) continue;
        const over = plane.a + plane.b * middle.xMm + plane.c * middle.yMm;
        if (over >= lowest) continue;
        const covers = active.every((n) => {
          const b = balls[n];
          return plane.a + plane.b * b.xMm + plane.c * b.yMm >= b.heightMm - CLOSE_MM;
        });
        if (covers) [best, lowest] = [{ ...plane, carriers }, over];
      }
    }
  }
  return best;
}

function planeThrough([p, q, r]: readonly StandingBall[]): { a: number; b: number; c: number } | undefined {
  const [ux, uy, uz] = [q.xMm - p.xMm, q.yMm - p.yMm, q.heightMm - p.heightMm];
  const [vx, vy, vz] = [r.xMm - p.xMm, r.yMm - p.yMm, r.heightMm - p.heightMm];
  const det = ux * vy - uy * vx;
  if (Math.abs(det) < 1e-9) return undefined;
  const b = (uz * vy - uy * vz) / det;
  const c = (ux * vz - uz * vx) / det;
  return { a: p.heightMm - b * p.xMm - c * p.yMm, b, c };
}
