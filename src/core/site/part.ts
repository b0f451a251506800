import { landsOf, type PartPackage } from '../board';
import { patternWithout, type SitePattern } from './pattern';

/** A balled part as a picture is looked over for. */
export interface BalledPart {
  readonly pattern: SitePattern;
  /** Names of the balls in the order of the pattern's sites. */
  readonly pins: readonly string[];
  readonly pitchMm: number;
  readonly ballMm: number;
  readonly padMm: number;
}

/** The pattern of a package; undefined where it has no balls. */
export function balledPart(pkg: PartPackage): BalledPart | undefined {
  const { lands } = pkg;
  if (lands.kind !== 'array') return undefined;
  const pads = landsOf(pkg);
  const { columns, rows, pitchMm, ballMm, padMm } = lands;
  const place = (mm: number, count: number): number => Math.round(mm / pitchMm + (count - 1) / 2);
  const held = new Set(pads.map((p) => `${place(p.xMm, columns)} ${place(p.yMm, rows)}`));
  return {
    pattern: patternWithout(columns, rows, (c, r) => !held.has(`${c} ${r}`)),
    pins: pads.map((p) => p.pin),
    ...{ pitchMm, ballMm, padMm },
  };
}
