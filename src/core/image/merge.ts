import { writeField } from '../checksum';
import { fail, ok, type Result } from '../result';
import type { ImageFamily, Region } from './family';
import { checksumRegions, checkSums, computedSum } from './judge';

export type Source = 'patient' | 'donor' | 'computed';

/** Where each region of the new image comes from. */
export type MergeRules = Readonly<Record<string, Source>>;

export interface MergedImage {
  readonly bytes: Uint8Array;
  /** Origin of every byte: runs in order, without gaps. */
  readonly audit: readonly {
    readonly offset: number;
    readonly length: number;
    readonly from: Source;
    readonly region: string;
  }[];
}

/** The usual rules: code from the sound donor, what belongs to the unit from the patient, checksums computed. */
export function proposeRules(family: ImageFamily): MergeRules {
  return Object.fromEntries(family.regions.map((r) => [r.name, usualSource(r)]));
}

function usualSource(region: Region): Source {
  if (region.meaning === 'checksum') return 'computed';
  return region.meaning === 'identity' || region.meaning === 'calibration' || region.meaning === 'settings'
    ? 'patient'
    : 'donor';
}

/**
 * Builds a new image. Bytes outside all regions come from the donor. The identity of a unit is never taken from the
 * donor: such a rule is refused.
 */
export function mergeImages(
  family: ImageFamily,
  patient: Uint8Array,
  donor: Uint8Array,
  rules: MergeRules,
): Result<MergedImage> {
  for (const [who, image] of [
    ['patient', patient],
    ['donor', donor],
  ] as const) {
    if (image.length !== family.sizeBytes)
      return fail(`Expected ${family.sizeBytes} bytes for the ${who}’s image; got ${image.length}.`);
  }
  const bytes = Uint8Array.from(donor);
  for (const region of family.regions) {
    const from = rules[region.name] ?? usualSource(region);
    if (region.meaning === 'identity' && from === 'donor')
      return fail(`${region.name} is the identity of one unit: it stays the patient’s.`);
    if (region.meaning === 'checksum' && from !== 'computed')
      return fail(`${region.name} is a checksum: it is computed, not copied.`);
    if (from === 'patient') bytes.set(patient.subarray(region.offset, region.offset + region.length), region.offset);
  }
  const hidden = hiddenDamage(family, rules, { patient, donor });
  if (hidden) return fail(hidden);
  for (const region of checksumRegions(family)) {
    writeField(bytes, region.offset, region.length, region.bigEndian ?? false, computedSum(region, bytes));
  }
  if (!checkSums(family, bytes).every((c) => c.holds))
    return fail(
      'The checksums of this family cover each other in a circle and cannot be computed in their listed order.',
    );
  return ok({ bytes, audit: auditOf(family, rules) });
}

/** A checksum made anew over what its own source's checksum refuses would only hide the damage. */
function hiddenDamage(
  family: ImageFamily,
  rules: MergeRules,
  images: Readonly<Record<'patient' | 'donor', Uint8Array>>,
): string | undefined {
  for (const who of ['patient', 'donor'] as const) {
    const taken = family.regions.filter((r) => (rules[r.name] ?? usualSource(r)) === who);
    const sums = checkSums(family, images[who]);
    const broken = checksumRegions(family).find(
      ({ covers }, k) => !sums[k].holds && taken.some((r) => overlaps(r, covers!)),
    );
    if (broken)
      return `Expected ${who === 'donor' ? 'a donor' : 'a patient’s image'} whose ${broken.name} holds, as parts under it are taken from there; it does not hold. A checksum made anew would only hide the damage.`;
  }
  return undefined;
}

const overlaps = (a: { offset: number; length: number }, b: { offset: number; length: number }): boolean =>
  a.offset < b.offset + b.length && b.offset < a.offset + a.length;

/**
 * What is wrong with where a merged image says it is: the position that the patient's sound settings carry is the slot's.
 * @returns a sentence; undefined where nothing is, or where the patient's settings cannot be trusted.
 */
export function positionConflict(family: ImageFamily, patient: Uint8Array, merged: Uint8Array): string | undefined {
  const { positionOffset: at } = family;
  if (at === undefined) return undefined;
  const guards = checkSums(family, patient).filter((_, k) => {
    const { offset, length } = checksumRegions(family)[k].covers!;
    return at >= offset && at < offset + length;
  });
  if (guards.length === 0 || !guards.every((g) => g.holds) || merged[at] === patient[at]) return undefined;
  return `Expected position ${patient[at]}, which the settings of this slot carry; the merged image says ${merged[at]}. Take the settings from the patient.`;
}

function auditOf(family: ImageFamily, rules: MergeRules): MergedImage['audit'] {
  const audit: { offset: number; length: number; from: Source; region: string }[] = [];
  let at = 0;
  for (const region of [...family.regions].sort((a, b) => a.offset - b.offset)) {
    if (region.offset > at)
      audit.push({ offset: at, length: region.offset - at, from: 'donor', region: 'outside all regions' });
    audit.push({
      offset: region.offset,
      length: region.length,
      from: rules[region.name] ?? usualSource(region),
      region: region.name,
    });
    at = region.offset + region.length;
  }
  if (at < family.sizeBytes)
    audit.push({ offset: at, length: family.sizeBytes - at, from: 'donor', region: 'outside all regions' });
  return audit;
}
