import { BAKE_TEMPS_C, bakeH, type BakeTempC, type MoistureLevel } from './moisture';

/** One way to bake a part. */
export interface BakeWay {
  readonly tempC: BakeTempC;
  readonly hours: number;
  /** What it asks of the carrier, in words. */
  readonly needs: string;
}

/** What a tray, a reel or a ball bears. Source: J-STD-033, handling of carriers (from memory). */
const NEEDS: Readonly<Record<BakeTempC, string>> = {
  125: 'out of tape and low-temperature trays; once only for balls and leads',
  90: 'out of tape; dry air, at most 5 % humidity',
  40: 'in tape and reel; dry air, at most 5 % humidity',
};

/** The ways to bake a part, the quickest first; empty where its level needs none or the table does not reach. */
export function bakeWays(level: MoistureLevel, bodyMm: number): BakeWay[] {
  return BAKE_TEMPS_C.flatMap((tempC) => {
    const hours = bakeH(level, bodyMm, tempC);
    return hours ? [{ tempC, hours, needs: NEEDS[tempC] }] : [];
  });
}
