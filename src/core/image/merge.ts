import { writeField } from '../checksum';
import { fail, ok, type Result } from '../result';
import { formatHex } from '../units';
import { fieldsOf, type ImageFamily, type Region } from './family';
import { checksumRegions, checkSums, computedSum } from './judge';

/** Whose bytes a region of the new image takes; `copy`: the patient's own other copy of it. */
export type Source = 'patient' | 'donor' | 'copy' | 'computed';

/** Why the identity of a unit may come from the donor's image after all. Local law and the owner's word stand above each. */
export const IDENTITY_REASONS = {
  pairMoves: 'the donor’s chip moves with its memory, and the donor is retired',
  sameUnit: 'the donor’s image is an earlier read of this same unit',
} as const;

export type IdentityReason = keyof typeof IDENTITY_REASONS;

/** How a new image is made: what it begins as, a source for each region, fields that are set, and why an identity moves. */
export interface Transplant {
  /** Bytes outside all regions come from here. */
  readonly base: 'patient' | 'donor';
  readonly take: Readonly<Record<string, Source>>;
  readonly set: Readonly<Record<string, number>>;
  readonly reason?: IdentityReason;
}

/** The images that a new one is made of. */
export interface Sources {
  readonly patient: Uint8Array;
  /** Left out where the patient's own copies suffice. */
  readonly donor?: Uint8Array;
}

export interface MergedImage {
  readonly bytes: Uint8Array;
  /** Origin of every byte: runs in order, without gaps. */
  readonly audit: readonly Origin[];
}

export interface Origin {
  readonly offset: number;
  readonly length: number;
  readonly from: Source | 'set';
  readonly region: string;
}

/** Where a region comes from as long as nothing else is asked for. */
export function usualSource({ meaning }: Region): Source {
  switch (meaning) {
    case 'checksum':
      return 'computed';
    case 'identity':
    case 'calibration':
    case 'settings':
    case 'journal':
      return 'patient';
    case 'code':
    case 'padding':
      return 'donor';
  }
}

/** Which regions can stand in for a region: the one it repeats, and those that repeat it. */
export const copiesOf = ({ regions }: ImageFamily, region: Region): Region[] =>
  regions.filter(
    (r) =>
      r !== region &&
      (r.name === region.copyOf || r.copyOf === region.name || (r.copyOf !== undefined && r.copyOf === region.copyOf)),
  );

/**
 * Builds a new image by its rules, sets what is to be set, and computes every checksum. Refused are the identity of
 * another unit without a reason, a copied checksum, parts that their own checksum refuses, and values that do not fit.
 */
export function mergeImages(family: ImageFamily, sources: Sources, plan: Transplant): Result<MergedImage> {
  const wrong = wrongSources(family, sources, plan) ?? wrongRules(family, plan) ?? hiddenDamage(family, sources, plan);
  if (wrong) return fail(wrong);
  const bytes = Uint8Array.from(sources[plan.base]!);
  for (const region of family.regions) {
    const from = contentOf(family, region, sources, plan);
    if (from) bytes.set(from, region.offset);
  }
  for (const field of setFields(family, plan))
    writeField(bytes, field.offset, field.bytes, field.bigEndian ?? false, plan.set[field.name]);
  for (const region of checksumRegions(family))
    writeField(bytes, region.offset, region.length, region.bigEndian ?? false, computedSum(region, bytes));
  if (!checkSums(family, bytes).every((c) => c.holds))
    return fail(
      'The checksums of this family cover each other in a circle and cannot be computed in their listed order.',
    );
  return ok({ bytes, audit: auditOf(family, plan) });
}

const sourceOf = (region: Region, { take }: Transplant): Source => take[region.name] ?? usualSource(region);

const setFields = (family: ImageFamily, { set }: Transplant) =>
  fieldsOf(family).filter((f) => set[f.name] !== undefined);

/** The bytes that a region takes over; nothing for a checksum. */
function contentOf(
  family: ImageFamily,
  region: Region,
  { patient, donor }: Sources,
  plan: Transplant,
): Uint8Array | undefined {
  const cut = (bytes: Uint8Array, { offset, length }: Region): Uint8Array => bytes.subarray(offset, offset + length);
  switch (sourceOf(region, plan)) {
    case 'patient':
      return cut(patient, region);
    case 'donor':
      return cut(donor!, region);
    case 'copy':
      return cut(patient, soundCopy(family, region, patient)!);
    case 'computed':
      return undefined;
  }
}

/** The first copy of a region whose checksums hold in the image. */
export const soundCopy = (family: ImageFamily, region: Region, bytes: Uint8Array): Region | undefined =>
  copiesOf(family, region).find((copy) => guardsOf(family, bytes, copy).every((g) => g.holds));

/** The checksums of an image that cover a stretch of it. */
export function guardsOf(family: ImageFamily, bytes: Uint8Array, part: { offset: number; length: number }) {
  return checkSums(family, bytes).filter((_, k) => overlaps(part, checksumRegions(family)[k].covers!));
}

function wrongSources(family: ImageFamily, { patient, donor }: Sources, plan: Transplant): string | undefined {
  const needsDonor = plan.base === 'donor' || family.regions.some((r) => sourceOf(r, plan) === 'donor');
  if (needsDonor && !donor) return 'Expected a donor’s image, as parts are taken from it; got none.';
  for (const [who, image] of [
    ['patient', patient],
    ['donor', donor],
  ] as const) {
    if (image && image.length !== family.sizeBytes)
      return `Expected ${family.sizeBytes} bytes for the ${who}’s image; got ${image.length}.`;
  }
  for (const region of family.regions.filter((r) => sourceOf(r, plan) === 'copy'))
    if (!soundCopy(family, region, patient))
      return `Expected a sound copy of ${region.name} in the patient’s image; got none whose checksum holds.`;
  return undefined;
}

function wrongRules(family: ImageFamily, plan: Transplant): string | undefined {
  for (const region of family.regions) {
    const from = sourceOf(region, plan);
    if (region.meaning === 'identity' && from === 'donor' && !plan.reason)
      return `${region.name} is the identity of one unit: it stays the patient’s, unless a reason is named (${Object.values(IDENTITY_REASONS).join('; ')}).`;
    if ((region.meaning === 'checksum') !== (from === 'computed'))
      return region.meaning === 'checksum'
        ? `${region.name} is a checksum: it is computed, not copied.`
        : `Expected a source for ${region.name}; only checksums are computed.`;
  }
  for (const [name, value] of Object.entries(plan.set)) {
    const field = fieldsOf(family).find((f) => f.name === name);
    if (!field)
      return `Expected a field of ${family.name} (${fieldsOf(family)
        .map((f) => f.name)
        .join(', ')}); got ${name}.`;
    if (!Number.isInteger(value) || value < 0 || value >= 2 ** (8 * field.bytes))
      return `Expected a whole number from 0 to ${2 ** (8 * field.bytes) - 1} for ${name}; got ${value}.`;
  }
  return undefined;
}

/** A checksum made anew over what its own source's checksum refuses would only hide the damage. */
function hiddenDamage(family: ImageFamily, sources: Sources, plan: Transplant): string | undefined {
  for (const who of ['patient', 'donor'] as const) {
    const image = sources[who];
    if (!image) continue;
    const taken = family.regions.filter((r) => sourceOf(r, plan) === who);
    const broken = taken.flatMap((r) => guardsOf(family, image, r)).find((g) => !g.holds);
    if (broken)
      return `Expected ${who === 'donor' ? 'a donor' : 'a patient’s image'} whose ${broken.region} holds, as parts under it are taken from there; it does not hold. A checksum made anew would only hide the damage.`;
  }
  return undefined;
}

const overlaps = (a: { offset: number; length: number }, b: { offset: number; length: number }): boolean =>
  a.offset < b.offset + b.length && b.offset < a.offset + a.length;

/**
 * What is wrong with where a new image says it is. The slot's position counts; where nobody knows it, the one that the
 * patient's sound settings carry.
 * @param slot the byte that means the position of the board's slot. @returns a sentence; undefined where nothing is wrong.
 */
export function positionConflict(
  family: ImageFamily,
  patient: Uint8Array,
  merged: Uint8Array,
  slot?: number,
): string | undefined {
  const { positionOffset: at } = family;
  if (at === undefined) return undefined;
  if (slot !== undefined && merged[at] !== slot)
    return `Expected position ${slot}, which this slot has on the board; the new image says ${merged[at]}. Take the settings from the patient, or set the position.`;
  const guards = guardsOf(family, patient, { offset: at, length: 1 });
  if (slot !== undefined || guards.length === 0 || !guards.every((g) => g.holds) || merged[at] === patient[at])
    return undefined;
  return `Expected position ${patient[at]}, which the settings of this slot carry; the new image says ${merged[at]}. Take the settings from the patient.`;
}

/** The runs of origins: the base, over it the regions, over them what was set. */
function auditOf(family: ImageFamily, plan: Transplant): Origin[] {
  const audit: Origin[] = [];
  const regions = [...family.regions].sort((a, b) => a.offset - b.offset);
  let at = 0;
  const base = (until: number): void => {
    if (until > at) audit.push({ offset: at, length: until - at, from: plan.base, region: 'outside all regions' });
    at = Math.max(at, until);
  };
  for (const region of regions) {
    base(region.offset);
    const end = region.offset + region.length;
    const set = setFields(family, plan)
      .filter((f) => f.offset >= region.offset && f.offset < end)
      .sort((a, b) => a.offset - b.offset);
    const from = sourceOf(region, plan);
    for (const field of set) {
      if (field.offset > at) audit.push({ offset: at, length: field.offset - at, from, region: region.name });
      audit.push({ offset: field.offset, length: field.bytes, from: 'set', region: `${region.name}, ${field.name}` });
      at = field.offset + field.bytes;
    }
    if (end > at) audit.push({ offset: at, length: end - at, from, region: region.name });
    at = end;
  }
  base(family.sizeBytes);
  return audit;
}

/** A transplant in one sentence of figures. */
export function transplantWords(family: ImageFamily, plan: Transplant): string {
  const by = (source: Source): string =>
    family.regions
      .filter((r) => sourceOf(r, plan) === source)
      .map((r) => r.name)
      .join(', ');
  const set = setFields(family, plan).map(
    (f) => `${f.name} ${plan.set[f.name]} (${formatHex(plan.set[f.name], 2 * f.bytes)})`,
  );
  return [
    by('donor') && `from the donor: ${by('donor')}`,
    by('copy') && `from the patient’s own copy: ${by('copy')}`,
    by('patient') && `the patient’s: ${by('patient')}`,
    set.length > 0 && `set: ${set.join(', ')}`,
    by('computed') && `computed: ${by('computed')}`,
    plan.reason && `identity from the donor, as ${IDENTITY_REASONS[plan.reason]}`,
  ]
    .filter(Boolean)
    .join('; ');
}
