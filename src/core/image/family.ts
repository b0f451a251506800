import { z } from 'zod';
import { CHECKSUMS, checksumByName, type Checksum } from '../checksum';
import { failAll, ok, type Result } from '../result';

/** What a region of an image is for, and therefore where it should come from when images are merged. */
export const REGION_MEANINGS = [
  'code',
  'settings',
  'identity',
  'calibration',
  'journal',
  'checksum',
  'padding',
] as const;

const offset = z.number().int().min(0);

const regionSchema = z.object({
  name: z.string().min(1),
  offset,
  length: z.number().int().positive(),
  meaning: z.enum(REGION_MEANINGS),
  covers: z
    .object({ offset, length: z.number().int().positive() })
    .optional()
    .describe('for checksum regions: the range that is summed'),
  algorithm: z.string().optional().describe('for checksum regions; CRC-32/ISO-HDLC when left out'),
  bigEndian: z.boolean().optional().describe('for checksum regions: the highest byte first'),
  copyOf: z.string().optional().describe('the region whose content it repeats'),
  position: z.number().int().min(0).max(255).optional().describe('for settings: the only position that reads them'),
});

const fieldSchema = z.object({
  name: z.string().min(1),
  offset,
  bytes: z.union([z.literal(1), z.literal(2), z.literal(4)]),
  bigEndian: z.boolean().optional(),
});

/** The open format `unisolda-image-family/1`: a region map with everything needed to judge and to merge. */
export const imageFamilySchema = z.object({
  format: z.literal('unisolda-image-family/1'),
  id: z.string().regex(/^[a-z0-9-]+$/),
  name: z.string().min(1),
  sizeBytes: z.number().int().positive(),
  /** Bytes that every image of the family starts with, as hex. */
  magicHex: z.string().regex(/^([0-9a-f]{2})+$/),
  /** Counts the changes of the map. */
  revision: z.number().int().positive().optional(),
  /** Where the port position is kept, one byte; checked against the board's slot. */
  positionOffset: offset.optional(),
  /** The byte that means each position of a board file. */
  positions: z.record(z.string(), z.number().int().min(0).max(255)).optional(),
  /** Values that may be set by themselves when an image is made. */
  fields: z.array(fieldSchema).optional(),
  regions: z.array(regionSchema).min(1),
});

export type ImageFamily = z.infer<typeof imageFamilySchema>;
export type Region = ImageFamily['regions'][number];
export type ImageField = z.infer<typeof fieldSchema>;

/** What can be set in an image of the family: its fields, and its position. */
export function fieldsOf({ fields = [], positionOffset }: ImageFamily): ImageField[] {
  return positionOffset === undefined ? fields : [{ name: 'position', offset: positionOffset, bytes: 1 }, ...fields];
}

/** The algorithm of a checksum region. */
export const checksumOf = ({ algorithm = 'CRC-32/ISO-HDLC' }: Region): Checksum | undefined =>
  checksumByName(algorithm);

function checksumProblems(region: Region): { at: string; message: string }[] {
  if (region.meaning !== 'checksum') return [];
  const checksum = checksumOf(region);
  if (!checksum)
    return [
      {
        at: region.name,
        message: `Expected an algorithm such as ${CHECKSUMS[0].name} or CRC-32/ISO-HDLC; got ${region.algorithm}.`,
      },
    ];
  if (region.covers && region.length === checksum.bytes) return [];
  return [
    {
      at: region.name,
      message: `Expected ${checksum.bytes} bytes for ${checksum.name} and the range it covers; got ${region.length} bytes${region.covers ? '' : ' and no range'}.`,
    },
  ];
}

/** Checks a region map: regions lie inside the image and do not overlap; checksum fields have the bytes of their algorithm. */
export function parseImageFamily(input: unknown): Result<ImageFamily> {
  const parsed = imageFamilySchema.safeParse(input);
  if (!parsed.success)
    return failAll(parsed.error.issues.map((i) => ({ at: i.path.join('.') || 'file', message: `${i.message}.` })));
  const family = parsed.data;
  const sorted = [...family.regions].sort((a, b) => a.offset - b.offset);
  const problems = sorted.flatMap((region, i) => {
    const end = region.offset + region.length;
    const next = sorted[i + 1];
    const list = [];
    if (end > family.sizeBytes)
      list.push({ at: region.name, message: `It ends at ${end}, past the image's ${family.sizeBytes} bytes.` });
    if (next && next.offset < end) list.push({ at: region.name, message: `It overlaps ${next.name}.` });
    list.push(...checksumProblems(region));
    if (region.covers && region.covers.offset + region.covers.length > family.sizeBytes)
      list.push({ at: region.name, message: 'The range it covers ends past the image.' });
    return list;
  });
  problems.push(...nameProblems(family), ...copyProblems(family), ...fieldProblems(family));
  return problems.length > 0 ? failAll(problems) : ok(family);
}

function nameProblems({ regions }: ImageFamily): { at: string; message: string }[] {
  const twice = regions.filter((r, k) => regions.findIndex((other) => other.name === r.name) < k);
  return twice.map(({ name }) => ({ at: name, message: 'Expected a name of its own; another region has it too.' }));
}

function copyProblems({ regions }: ImageFamily): { at: string; message: string }[] {
  return regions.flatMap(({ name, copyOf, length }) => {
    if (copyOf === undefined) return [];
    const first = regions.find((r) => r.name === copyOf);
    if (first && first.length === length && first.name !== name) return [];
    const got = first ? `${first.name} of ${first.length} bytes` : copyOf;
    return [{ at: name, message: `Expected it to repeat another region of ${length} bytes; got ${got}.` }];
  });
}

function fieldProblems(family: ImageFamily): { at: string; message: string }[] {
  const isHeld = ({ offset: at, bytes }: ImageField): boolean =>
    family.regions.some(
      (r) =>
        r.meaning !== 'checksum' && r.meaning !== 'identity' && r.offset <= at && at + bytes <= r.offset + r.length,
    );
  return fieldsOf(family)
    .filter((f) => !isHeld(f))
    .map(({ name, offset: at, bytes }) => ({
      at: name,
      message: `Expected a field inside a region that is no checksum and no identity; got ${bytes} bytes at ${at}.`,
    }));
}
