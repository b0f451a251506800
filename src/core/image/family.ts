import { z } from 'zod';
import { CHECKSUMS, checksumByName, type Checksum } from '../checksum';
import { failAll, ok, type Result } from '../result';

/** What a region of an image is for, and therefore where it should come from when images are merged. */
export const REGION_MEANINGS = ['code', 'settings', 'identity', 'calibration', 'checksum', 'padding'] as const;

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
});

/** The open format `unisolda-image-family/1`: a region map with everything needed to judge and to merge. */
export const imageFamilySchema = z.object({
  format: z.literal('unisolda-image-family/1'),
  id: z.string().regex(/^[a-z0-9-]+$/),
  name: z.string().min(1),
  sizeBytes: z.number().int().positive(),
  /** Bytes that every image of the family starts with, as hex. */
  magicHex: z.string().regex(/^([0-9a-f]{2})+$/),
  /** Where the port position is kept, one byte; checked against the board's slot. */
  positionOffset: offset.optional(),
  regions: z.array(regionSchema).min(1),
});

export type ImageFamily = z.infer<typeof imageFamilySchema>;
export type Region = ImageFamily['regions'][number];

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
  return problems.length > 0 ? failAll(problems) : ok(family);
}
