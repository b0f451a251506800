import type { PartPackage } from '../board';

/**
 * Standard land patterns by name. Bodies of two-pad parts: their size codes (metric, IEC 60115-8 and IEC 60384 style, from
 * memory); leadless packages: pitch × pins with the usual corner, as JEDEC MO-220 draws them (from memory); ball grids: pitch ×
 * balls (JEDEC MO-195 style, from memory); pads: the body's lead with a fillet, engineering estimates after IPC-7351.
 */
export interface LandPattern {
  /** Stands in board files: `CHIP-1005`, `QFN-40-0.5`. */
  readonly name: string;
  /** As it is offered: `40 pins on four sides, 0.5 mm, 6 × 6 mm`. */
  readonly label: string;
  readonly package: PartPackage;
  /** True where it can be told in a photograph by its size and look. */
  readonly seen: boolean;
}

type Drawn = Omit<LandPattern, 'seen'>;

const two = (
  name: string,
  words: string,
  bodyMm: [number, number],
  heightMm: number,
  padMm: [number, number],
): Drawn => ({
  name,
  label: `${words}, ${bodyMm[0]} × ${bodyMm[1]} mm`,
  package: {
    bodyMm,
    heightMm,
    plastic: false,
    lands: { kind: 'two', pitchMm: round(bodyMm[0] - padMm[0] / 2 + 0.15), padMm },
  },
});

const round = (mm: number): number => Number(mm.toFixed(3));

/** Corner between the last pin and the edge of a leadless body, both sides together, mm. */
const CORNER_MM = 1.5;
/** Pads of leadless packages: length, and width as a share of the pitch. */
const LEAD_MM = 0.6;
const LEAD_SHARE = 0.55;

/** Pins on four sides without leads. @param pins a multiple of four. @param pitchMm 0.4 to 0.65 mm. */
function quad(pins: number, pitchMm: number): Drawn {
  const side = round((pins / 4 - 1) * pitchMm + CORNER_MM);
  return {
    name: `QFN-${pins}-${pitchMm}`,
    label: `${pins} pins on four sides, ${pitchMm} mm, ${side} × ${side} mm`,
    package: {
      bodyMm: [side, side],
      heightMm: 0.85,
      plastic: false,
      lands: {
        kind: 'quad',
        pins,
        pitchMm,
        padMm: [LEAD_MM, round(LEAD_SHARE * pitchMm)],
        spanMm: [round(side - 0.3), round(side - 0.3)],
        centreMm: [round(side - 1.6), round(side - 1.6)],
      },
    },
  };
}

/** Pins on two sides. */
function dual(
  name: string,
  words: string,
  pins: number,
  pitchMm: number,
  bodyMm: [number, number],
  spanMm: number,
): Drawn {
  const leadless = spanMm <= bodyMm[0];
  return {
    name,
    label: `${words}, ${pitchMm} mm, ${bodyMm[0]} × ${bodyMm[1]} mm`,
    package: {
      bodyMm,
      heightMm: leadless ? 0.7 : 1.5,
      plastic: false,
      lands: {
        kind: 'dual',
        pins,
        pitchMm,
        padMm: leadless ? [0.45, round(LEAD_SHARE * pitchMm)] : [1.5, round(LEAD_SHARE * pitchMm)],
        spanMm,
        ...(leadless && { centreMm: [round(bodyMm[0] / 2), round(bodyMm[1] * 0.7)] as [number, number] }),
      },
    },
  };
}

/** Balls are 0.6 of their pitch, and their pads 0.5 of it; the body stands half a millimetre over the last row. */
function grid(columns: number, rows: number, pitchMm: number): Drawn {
  const body = (n: number): number => round((n - 1) * pitchMm + 0.7);
  return {
    name: `BGA-${columns * rows}-${pitchMm}`,
    label: `${columns * rows} balls, ${pitchMm} mm, ${body(columns)} × ${body(rows)} mm`,
    package: {
      bodyMm: [body(columns), body(rows)],
      heightMm: 0.8,
      plastic: false,
      lands: { kind: 'array', columns, rows, pitchMm, padMm: round(0.5 * pitchMm), ballMm: round(0.6 * pitchMm) },
    },
  };
}

type ListPad = Extract<PartPackage['lands'], { kind: 'list' }>['pads'][number];

const list = (
  name: string,
  words: string,
  bodyMm: [number, number],
  heightMm: number,
  pads: readonly [pin: string, xMm: number, yMm: number, wMm: number, hMm: number][],
  plastic = false,
): Drawn => ({
  name,
  label: `${words}, ${bodyMm[0]} × ${bodyMm[1]} mm`,
  package: {
    bodyMm,
    heightMm,
    plastic,
    lands: { kind: 'list', pads: pads.map(([pin, xMm, yMm, wMm, hMm]): ListPad => ({ pin, xMm, yMm, wMm, hMm })) },
  },
});

/** Contacts of a receptacle: 0.5 mm apart in two rows of twelve, the rows running against each other (USB Type-C, from memory). */
const CONTACT_PITCH_MM = 0.5;
const ROWS_MM = { A: 4, B: 2.4 } as const;
const contacts = (['A', 'B'] as const).flatMap((row) =>
  Array.from({ length: 12 }, (_, i): [string, number, number, number, number] => {
    const y = round((i - 5.5) * CONTACT_PITCH_MM);
    return [`${row}${i + 1}`, ROWS_MM[row], row === 'A' ? y : -y, 1, 0.28];
  }),
);
const tabs: [string, number, number, number, number][] = [
  ['S1', -2.2, -4.4, 1.6, 0.9],
  ['S2', 2.2, -4.4, 1.6, 0.9],
  ['S3', -2.2, 4.4, 1.6, 0.9],
  ['S4', 2.2, 4.4, 1.6, 0.9],
];

const ALL_PATTERNS: readonly Drawn[] = [
  two('CHIP-0603', 'chip', [0.6, 0.3], 0.3, [0.3, 0.3]),
  two('CHIP-1005', 'chip', [1, 0.5], 0.5, [0.5, 0.5]),
  two('CHIP-1608', 'chip', [1.6, 0.8], 0.8, [0.7, 0.8]),
  two('CHIP-2012', 'chip', [2, 1.25], 1.1, [0.8, 1.2]),
  two('CHIP-3216', 'chip', [3.2, 1.6], 1.2, [1, 1.6]),
  two('COIL-2520', 'coil', [2.5, 2], 1, [0.8, 1.8]),
  two('COIL-4040', 'coil', [4, 4], 1.8, [1.2, 3.4]),
  two('COIL-6060', 'coil', [6, 6], 2.5, [1.6, 5]),
  two('DIODE-2', 'diode', [1.7, 1.3], 0.6, [0.6, 1]),
  dual('SOIC-8', '8 legs on two sides', 8, 1.27, [3.9, 4.9], 5.4),
  dual('SON-8-0.5', '8 pads on two sides', 8, 0.5, [3, 2], 2.7),
  dual('SON-8-1.27', '8 pads on two sides', 8, 1.27, [6, 5], 5.4),
  dual('SON-10-0.5', '10 pads on two sides', 10, 0.5, [3, 3], 2.7),
  ...[12, 16, 20, 24, 28, 32, 40, 48, 56].map((pins) => quad(pins, 0.5)),
  ...[20, 24, 32, 40, 48, 56].map((pins) => quad(pins, 0.4)),
  ...[3, 4, 5, 6, 7, 8, 10].map((n) => grid(n, n, 0.5)),
  ...[4, 5, 6, 7].map((n) => grid(n, n, 0.4)),
  grid(10, 10, 0.8),
  list('FET-3.3', 'transistor', [3.3, 3.3], 0.9, [
    ['1', -1.4, 1, 0.7, 0.5],
    ['2', -1.4, -0.4, 0.7, 1.6],
    ['3', 0.6, 0, 1.8, 2.6],
  ]),
  list('SOT-23', 'three legs', [2.9, 1.3], 1, [
    ['1', -0.95, 1.1, 0.6, 0.7],
    ['2', 0.95, 1.1, 0.6, 0.7],
    ['3', 0, -1.1, 0.6, 0.7],
  ]),
  list('FILTER-4', 'two-line filter', [1.25, 1], 0.5, [
    ['1', -0.5, -0.25, 0.45, 0.25],
    ['2', 0.5, -0.25, 0.45, 0.25],
    ['3', -0.5, 0.25, 0.45, 0.25],
    ['4', 0.5, 0.25, 0.45, 0.25],
  ]),
  list('ESD-3', 'two lines and ground', [1, 0.6], 0.4, [
    ['1', -0.35, -0.15, 0.25, 0.25],
    ['2', 0.35, -0.15, 0.25, 0.25],
    ['3', 0, 0.2, 0.25, 0.25],
  ]),
  list('XTAL-4', 'crystal', [2, 1.6], 0.5, [
    ['1', -0.7, 0.5, 0.6, 0.5],
    ['2', 0.7, 0.5, 0.6, 0.5],
    ['3', 0.7, -0.5, 0.6, 0.5],
    ['4', -0.7, -0.5, 0.6, 0.5],
  ]),
  list('PORT-24', 'USB Type-C receptacle', [9, 9.2], 3.2, [...contacts, ...tabs], true),
  list(
    'PACK-4',
    'battery connector',
    [4, 8],
    2.4,
    [1, 2, 3, 4].map((pin): [string, number, number, number, number] => [
      String(pin),
      -1.6,
      (pin - 2.5) * 1.5,
      1.4,
      0.7,
    ]),
    true,
  ),
];

/** Small parts of many kinds share the size of these: they are not told by it. */
const UNSEEN: ReadonlySet<string> = new Set(['DIODE-2', 'SOT-23', 'FILTER-4', 'ESD-3', 'XTAL-4', 'PACK-4']);

/** The patterns that a sketch offers, those of one make together. */
export const LAND_PATTERNS: readonly LandPattern[] = ALL_PATTERNS.map((p) => ({ ...p, seen: !UNSEEN.has(p.name) }));

const byName = new Map(LAND_PATTERNS.map((p) => [p.name, p]));

/** A pattern by its name, whatever capitals it is typed in. */
export const landPattern = (name: string): LandPattern | undefined =>
  byName.get(name) ?? byName.get(name.toUpperCase());
