/**
 * Moisture levels of plastic packages: how long they may lie open at up to 30 °C and 60 % humidity, and how they are
 * baked. Source: J-STD-033, floor life and the bake table for bodies up to 1.4 mm thick (values from memory).
 */
export const MOISTURE_LEVELS = ['1', '2', '2a', '3', '4', '5', '5a', '6'] as const;
export type MoistureLevel = (typeof MOISTURE_LEVELS)[number];

const WEEK_H = 168;
/** Hours; level 6 has the time on its own label and must be baked before use. */
const FLOOR_LIFE_H: Readonly<Record<Exclude<MoistureLevel, '6'>, number>> = {
  '1': Infinity,
  '2': 365 * 24,
  '2a': 4 * WEEK_H,
  '3': 168,
  '4': 72,
  '5': 48,
  '5a': 24,
};

export const BAKE_TEMPS_C = [125, 90, 40] as const;
export type BakeTempC = (typeof BAKE_TEMPS_C)[number];

/** Hours at 125 °C, at 90 °C and ≤ 5 % humidity, at 40 °C and ≤ 5 %. Level 6 is baked as 5a, for want of a row of its own. */
const BAKE_H: Readonly<Record<Exclude<MoistureLevel, '1' | '6'>, Readonly<Record<BakeTempC, number>>>> = {
  '2': { 125: 5, 90: 17, 40: 8 * 24 },
  '2a': { 125: 7, 90: 23, 40: 9 * 24 },
  '3': { 125: 9, 90: 33, 40: 13 * 24 },
  '4': { 125: 11, 90: 37, 40: 15 * 24 },
  '5': { 125: 12, 90: 41, 40: 17 * 24 },
  '5a': { 125: 16, 90: 54, 40: 22 * 24 },
};

/** The bake table reaches to this body thickness. Source: J-STD-033. */
export const BAKE_TABLE_MM = 1.4;

/** Hours open before a bake; level 6: 6 h, label time. Source as above. */
export const floorLifeH = (level: MoistureLevel): number => (level === '6' ? 6 : FLOOR_LIFE_H[level]);

/** Hours of bake; undefined where the table does not reach (thicker bodies: the maker's label says). */
export function bakeH(level: MoistureLevel, bodyMm: number, tempC: BakeTempC): number | undefined {
  if (level === '1') return 0;
  if (bodyMm > BAKE_TABLE_MM) return undefined;
  return BAKE_H[level === '6' ? '5a' : level][tempC];
}

/** What happened to a bag or a chip, in order of time. */
export interface MoistureMark {
  readonly atH: number;
  readonly what: 'open' | 'dry' | 'out' | 'baked';
}

export interface MoistureState {
  readonly exposedH: number;
  /** Infinity where nothing limits it. */
  readonly leftH: number;
  readonly bake: boolean;
  /** True where a bake is needed for want of a history: a chip from a board or an unmarked bag. */
  readonly unknown: boolean;
}

/**
 * The floor life that is left. Time in the dry cabinet does not count, but takes nothing back (J-STD-033 lets a dry
 * store pause the clock of levels 2 to 4 under conditions; treated alike here, from memory); a full bake does.
 * @param marks history in hours from any origin; empty: sealed. `undefined`: nobody knows.
 */
export function moistureState(
  level: MoistureLevel,
  marks: readonly MoistureMark[] | undefined,
  nowH: number,
): MoistureState {
  const life = floorLifeH(level);
  if (level === '1') return { exposedH: 0, leftH: Infinity, bake: false, unknown: false };
  if (!marks) return { exposedH: life, leftH: 0, bake: true, unknown: true };
  let exposedH = 0;
  let since: number | undefined;
  for (const { atH, what } of marks) {
    if (since !== undefined) exposedH += atH - since;
    if (what === 'baked') exposedH = 0;
    since = what === 'dry' ? undefined : atH;
  }
  if (since !== undefined) exposedH += Math.max(0, nowH - since);
  const unbaked = level === '6' && !marks.some((m) => m.what === 'baked');
  return { exposedH, leftH: Math.max(0, life - exposedH), bake: unbaked || exposedH > life, unknown: false };
}
