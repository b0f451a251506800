import { Matrix, solve } from 'ml-matrix';

/** A height read at a place on the part: by feeler under a corner or by the microscope's focus on it. */
export interface HeightReading {
  readonly xMm: number;
  readonly yMm: number;
  readonly heightMm: number;
}

export interface Flatness {
  /** Slope of the plane through the readings, mm per mm. */
  readonly slopeX: number;
  readonly slopeY: number;
  /** How much higher one end of the part is than the other, mm, along its steepest line over the body. */
  readonly tiltMm: number;
  /** The reading that fits the plane worst, mm: a part bent or a reading wrong. */
  readonly residualMm: number;
  readonly holds: boolean;
  /** What to do, in words. */
  readonly summary: string;
}

/** A plane, or what does not fit one, from so much of the standoff on is not flat. Engineering estimates. */
const TILT_SHARE = 0.25;
const LEAST_TILT_MM = 0.03;
const BENT_SHARE = 0.2;
const LEAST_BENT_MM = 0.02;

/**
 * Whether a part sits flat: a plane by least squares through three or more heights.
 * @param bodyMm width and height of the part; @param standoffMm what its joints should leave under it.
 */
export function judgeFlatness(
  readings: readonly HeightReading[],
  bodyMm: readonly [number, number],
  standoffMm: number,
): Flatness | undefined {
  if (readings.length < 3) return undefined;
  const a = new Matrix(readings.map((r) => [1, r.xMm, r.yMm]));
  const normal = a.transpose().mmul(a);
  const x = readings.map((r) => r.xMm);
  const y = readings.map((r) => r.yMm);
  const area = spread(x) * spread(y);
  if (area < 1e-6) return undefined;
  const [level, slopeX, slopeY] = solve(
    normal,
    a.transpose().mmul(Matrix.columnVector(readings.map((r) => r.heightMm))),
  ).to1DArray();
  const residualMm = Math.max(...readings.map((r) => Math.abs(r.heightMm - level - slopeX * r.xMm - slopeY * r.yMm)));
  const tiltMm = Math.abs(slopeX) * bodyMm[0] + Math.abs(slopeY) * bodyMm[1];
  const mostTilt = Math.max(LEAST_TILT_MM, TILT_SHARE * standoffMm);
  const mostBent = Math.max(LEAST_BENT_MM, BENT_SHARE * standoffMm);
  const tilted = tiltMm > mostTilt;
  const bent = residualMm > mostBent;
  const high = `${slopeY < 0 ? 'top' : 'bottom'} ${slopeX > 0 ? 'right' : 'left'}`;
  return {
    slopeX,
    slopeY,
    tiltMm,
    residualMm,
    holds: !tilted && !bent,
    summary: bent
      ? `One corner is ${um(residualMm)} off the plane of the others: read it again; if it stays, the part is bent or sits on something.`
      : tilted
        ? `The ${high} corner is ${um(tiltMm)} high: warm it again and hold it down once, or look for solder in excess under that side.`
        : `Flat within ${um(Math.max(tiltMm, residualMm))}.`,
  };
}

const um = (mm: number): string => `${Math.round(1000 * mm)} µm`;
const spread = (list: readonly number[]): number => Math.max(...list) - Math.min(...list);

/** A part pulls itself straight when it lies within half a pad of its place. Common practice, no source. */
const SELF_CENTRING = 0.5;

/** How far a part may lie from its place and still be pulled straight by its joints, mm and as a share of the pitch. */
export function selfCentring(
  padMm: number,
  pitchMm: number,
): { readonly offsetMm: number; readonly shareOfPitch: number } {
  const offsetMm = Math.min(SELF_CENTRING * padMm, pitchMm - padMm);
  return { offsetMm, shareOfPitch: offsetMm / pitchMm };
}
