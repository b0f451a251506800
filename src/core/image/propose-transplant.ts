import type { ImageFamily, Region } from './family';
import { problemText } from '../result';
import { guardsOf, mergeImages, soundCopy, usualSource, type Source, type Sources, type Transplant } from './merge';

/** What Decide has settled that the image has to follow. */
export interface Decided {
  /** The byte that means the position of the board's slot. */
  readonly position?: number;
  /** The chip's partner memory comes from the donor with it. */
  readonly pairMoves?: boolean;
  /** The bench's school for the memory. */
  readonly school?: 'always' | 'whenChecksFail' | 'never';
}

export interface ProposedTransplant {
  readonly plan: Transplant;
  /** Why each region is taken from where it is. */
  readonly why: Readonly<Record<string, string>>;
  /** What the bench should do at all. */
  readonly advice: string;
}

/**
 * The usual transplant for these images: sound parts of the patient stay where they belong to the unit; damaged code comes
 * from the patient's own sound copy, else from the donor; damaged settings come from the donor with the slot's position.
 * Order of preference: common practice, handbook section 5.
 */
export function proposeTransplant(family: ImageFamily, sources: Sources, decided: Decided = {}): ProposedTransplant {
  const why: Record<string, string> = {};
  const take: Record<string, Source> = {};
  for (const region of family.regions) {
    const [source, words] = sourceFor(family, region, sources, decided);
    take[region.name] = source;
    why[region.name] = words;
  }
  const set = positionToSet(family, sources, take, decided);
  const plan: Transplant = { base: 'patient', take, set, ...(decided.pairMoves && { reason: 'pairMoves' as const }) };
  return { plan, why, advice: adviceOf(family, sources, plan, decided) };
}

function sourceFor(
  family: ImageFamily,
  region: Region,
  { patient, donor }: Sources,
  { pairMoves = false }: Decided,
): [Source, string] {
  if (region.meaning === 'checksum') return ['computed', 'follows from the rest'];
  const usual = usualSource(region);
  if (pairMoves && donor && usual === 'patient') return ['donor', 'the pair moves with the donor’s chip'];
  const broken = guardsOf(family, patient, region).find((g) => !g.holds);
  if (!broken) return ['patient', staysWords(region)];
  if (soundCopy(family, region, patient)) return ['copy', `its ${soundCopy(family, region, patient)!.name} holds`];
  if (!donor) return ['patient', `${broken.region} does not hold: a donor is needed`];
  if (region.meaning === 'identity')
    return [
      'patient',
      `${broken.region} does not hold, and the identity of another unit is no cure: look for an earlier read`,
    ];
  return ['donor', `the patient’s ${broken.region} does not hold`];
}

const staysWords = ({ meaning }: Region): string =>
  meaning === 'code' || meaning === 'padding' ? 'it holds: it stays' : 'belongs to the unit';

/** The position is set where the settings come from another place than the slot, or carry another one. */
function positionToSet(
  { positionOffset: at, regions }: ImageFamily,
  { patient, donor }: Sources,
  take: Readonly<Record<string, Source>>,
  { position }: Decided,
): Record<string, number> {
  if (at === undefined) return {};
  const region = regions.find((r) => at >= r.offset && at < r.offset + r.length)!;
  const source = take[region.name] === 'donor' ? donor! : patient;
  const wanted = position ?? patient[at];
  return source[at] === wanted ? {} : { position: wanted };
}

function adviceOf(
  family: ImageFamily,
  { patient, donor }: Sources,
  plan: Transplant,
  { school = 'whenChecksFail', pairMoves = false, position }: Decided,
): string {
  const all = { offset: 0, length: family.sizeBytes };
  const broken = guardsOf(family, patient, all).filter((g) => !g.holds);
  const at = family.positionOffset;
  const elsewhere = at !== undefined && position !== undefined && patient[at] !== position;
  if (pairMoves) return 'The pair moves: settings and identity come with the donor’s chip';
  if (elsewhere && broken.length === 0)
    return `The patient’s image is sound but says position ${patient[at]}; this slot is ${position}`;
  if (broken.length === 0)
    return school === 'always'
      ? 'The image holds; this bench’s school rewrites it all the same'
      : 'The image holds: it stays, and fewer chips are heated';
  if (school === 'never')
    return `${broken.map((b) => b.region).join(' and ')} does not hold, and this bench’s school never rewrites: decide on the chip anew`;
  const trial = mergeImages(family, { patient, ...(donor && { donor }) }, plan);
  if (!trial.ok) return donor ? problemText(trial.problems) : 'Damaged: a donor or a known-good image is needed';
  const mended = (source: Source): string =>
    family.regions
      .filter((r) => plan.take[r.name] === source)
      .map((r) => r.name)
      .join(', ');
  return mended('copy') ? `The patient’s own copy mends ${mended('copy')}` : `The donor mends ${mended('donor')}`;
}
