import { ALLOYS } from './alloys';

export type Element = 'Sn' | 'Pb' | 'Bi' | 'Ag' | 'Cu' | 'In';

export interface SolderAlloy {
  readonly name: string;
  readonly solidusC: number;
  readonly liquidusC: number;
  /** Shares of weight, adding up to 1. */
  readonly weights: Readonly<Partial<Record<Element, number>>>;
  readonly gramPerCm3: number;
}

const alloy = (
  name: string,
  [solidusC, liquidusC]: readonly [number, number],
  weights: SolderAlloy['weights'],
  gramPerCm3: number,
): SolderAlloy => ({ name, solidusC, liquidusC, weights, gramPerCm3 });

const melts = ({ solidusC, liquidusC }: { solidusC: number; liquidusC: number }): [number, number] => [
  solidusC,
  liquidusC,
];

/** What may be on a pad or on the iron. Melting ranges: published alloy tables (values from memory); densities likewise. */
export const SOLDERS: readonly SolderAlloy[] = [
  alloy('SAC305', melts(ALLOYS.SAC305), { Sn: 0.965, Ag: 0.03, Cu: 0.005 }, 7.38),
  alloy('SAC387', [217, 217], { Sn: 0.955, Ag: 0.038, Cu: 0.007 }, 7.4),
  alloy('Sn96.5Ag3.5', [221, 221], { Sn: 0.965, Ag: 0.035 }, 7.37),
  alloy('Sn99.3Cu0.7', [227, 227], { Sn: 0.993, Cu: 0.007 }, 7.31),
  alloy('Sn63Pb37', melts(ALLOYS.Sn63Pb37), { Sn: 0.63, Pb: 0.37 }, 8.4),
  alloy('Sn60Pb40', [183, 190], { Sn: 0.6, Pb: 0.4 }, 8.5),
  alloy('Sn62Pb36Ag2', [179, 179], { Sn: 0.62, Pb: 0.36, Ag: 0.02 }, 8.41),
  alloy('Sn42Bi58', melts(ALLOYS.Sn42Bi58), { Sn: 0.42, Bi: 0.58 }, 8.56),
  alloy('In52Sn48', [118, 118], { In: 0.52, Sn: 0.48 }, 7.3),
];

export const solderByName = (name: string): SolderAlloy | undefined => SOLDERS.find((s) => s.name === name);

export interface Portion {
  readonly alloy: SolderAlloy;
  readonly volumeMm3: number;
}

export interface Mixture {
  /** Shares of weight. */
  readonly weights: Readonly<Partial<Record<Element, number>>>;
  readonly massMg: number;
  /** Where it begins to melt and where it is all molten, °C; a range of both where no diagram says it. */
  readonly solidusC: number;
  readonly liquidusC: number;
  /** True where the figures are only the range of what went in. */
  readonly isRange: boolean;
  /** What the mix must not be left as, in words. */
  readonly warnings: readonly string[];
}

/** Liquidus of tin with lead by weight share of tin, °C. Points of the binary diagram, from memory; eutectic 61.9 %. */
const SN_PB_LIQUIDUS: readonly (readonly [number, number])[] = [
  [0, 327.5],
  [0.1, 302],
  [0.2, 280],
  [0.3, 257],
  [0.4, 236],
  [0.5, 213],
  [0.619, 183],
  [0.7, 193],
  [0.8, 206],
  [0.9, 219],
  [1, 231.9],
];
/** Published tin–lead diagram, from memory. */
const SN_PB_EUTECTIC_C = 183;
/** With less lead, or with less tin, no eutectic is left: solubility limits of the binary diagram, from memory. */
const LEAST_PB = 0.026;
const LEAST_SN = 0.19;
/** With more of other metals the tin–lead diagram says nothing. */
const MOST_OTHERS = 0.05;
/** The ternary eutectic of tin, lead and bismuth lies near this, °C (published diagram, from memory). */
const SN_PB_BI_C = 96;
/** Traces below these shares are not warned of. Engineering estimates. */
const TRACE_BI = 0.01;
const TRACE_PB = 0.01;
const TRACE_IN = 0.01;

/**
 * What comes of solders melted together: composition by mass from volumes and densities; the melting range from the
 * tin–lead diagram where only those two count, else the range of what went in.
 * @param portions at least one with a volume, mm³.
 */
export function mixSolders(portions: readonly Portion[]): Mixture {
  const mass = ({ alloy, volumeMm3 }: Portion): number => volumeMm3 * alloy.gramPerCm3;
  const used = portions.filter((p) => p.volumeMm3 > 0);
  const massMg = used.reduce((s, p) => s + mass(p), 0);
  const weights: Partial<Record<Element, number>> = {};
  for (const portion of used) {
    for (const [element, share] of Object.entries(portion.alloy.weights) as [Element, number][]) {
      weights[element] = (weights[element] ?? 0) + (share * mass(portion)) / massMg;
    }
  }
  return { weights, massMg, ...meltingOf(used, weights), warnings: warningsOf(weights) };
}

function meltingOf(
  used: readonly Portion[],
  weights: Mixture['weights'],
): Pick<Mixture, 'solidusC' | 'liquidusC' | 'isRange'> {
  const [only] = used;
  if (used.every((p) => p.alloy === only.alloy)) {
    return { solidusC: only.alloy.solidusC, liquidusC: only.alloy.liquidusC, isRange: false };
  }
  const [sn, pb] = [weights.Sn ?? 0, weights.Pb ?? 0];
  const others = 1 - sn - pb;
  if (pb > 0 && others < MOST_OTHERS) {
    const share = sn / (sn + pb);
    const liquidusC = alongLine(SN_PB_LIQUIDUS, share);
    const eutectic = 1 - share >= LEAST_PB && share >= LEAST_SN;
    return { solidusC: eutectic ? SN_PB_EUTECTIC_C : liquidusC, liquidusC, isRange: false };
  }
  return {
    solidusC: Math.min(...used.map((p) => p.alloy.solidusC)),
    liquidusC: Math.max(...used.map((p) => p.alloy.liquidusC)),
    isRange: true,
  };
}

function warningsOf(weights: Mixture['weights']): string[] {
  const { Pb = 0, Bi = 0, In = 0 } = weights;
  return [
    ...(Bi > TRACE_BI && Pb > TRACE_PB
      ? [`Bismuth with lead: a joint may melt near ${SN_PB_BI_C} °C. Clean all of it away and begin anew.`]
      : []),
    ...(Bi > TRACE_BI && Pb <= TRACE_PB
      ? ['Bismuth is left in the joint: brittle, and it melts at 138 °C where it has gathered. Clean it away.']
      : []),
    ...(In > TRACE_IN ? ['Indium is left in the joint: it melts from 118 °C. Clean it away.'] : []),
  ];
}

function alongLine(points: readonly (readonly [number, number])[], at: number): number {
  const k = Math.max(
    1,
    points.findIndex(([x]) => x >= at),
  );
  const [[x0, y0], [x1, y1]] = [points[k - 1], points[k]];
  return y0 + ((at - x0) / (x1 - x0)) * (y1 - y0);
}

/**
 * What somebody else's residue is likely to be, from where it was seen to melt, °C.
 * @returns undefined where it melts as the board's own alloy does.
 */
export function residueMeltingAt(seenC: number, ownSolidusC: number): string | undefined {
  if (seenC >= ownSolidusC - 8) return undefined;
  if (seenC < 110)
    return `Molten at ${seenC} °C: bismuth and lead together, near the ternary eutectic of ${SN_PB_BI_C} °C.`;
  if (seenC < 130) return `Molten at ${seenC} °C: indium and tin (118 °C), or bismuth and lead not fully mixed.`;
  if (seenC < 165) return `Molten at ${seenC} °C: a low-melt bismuth alloy (138 °C).`;
  return `Molten at ${seenC} °C: leaded solder (183 °C) in a lead-free joint.`;
}
