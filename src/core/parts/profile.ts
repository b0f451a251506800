import { z } from 'zod';
import { PART_KINDS } from '../board';
import { failAll, ok, type Result } from '../result';
import { MOISTURE_LEVELS } from './moisture';

export const partId = z.string().regex(/^[a-z0-9][a-z0-9-]*$/, 'expected a short name such as heron-q40-r3');
const positive = z.number().positive();

export const POSITION_LIVES = ['straps', 'image', 'fused', 'none'] as const;

/**
 * The open part format `unisolda-part/1`. Whatever is not known of a type is left out, and counts as not known: it is
 * never taken for alike.
 */
export const partTypeSchema = z.object({
  format: z.literal('unisolda-part/1'),
  id: partId,
  family: partId,
  kind: z.enum(PART_KINDS),
  what: z.string().trim().min(1).max(120),
  revision: z.string().min(1).describe('as it is printed'),
  order: z.number().int().describe('place in the order of the family’s revisions; later ones have more'),
  package: z.string().optional().describe('name of the land pattern, as board files name it'),
  thicknessMm: positive.optional(),
  pins: z.record(z.string(), z.string()).optional().describe('what each pin is'),
  supplyV: z.tuple([positive, positive]).optional().describe('lowest and highest supply'),
  position: z.enum(POSITION_LIVES).optional().describe('where the chip learns which port it serves'),
  strapCode: z
    .object({ bins: z.number().int().min(2).max(64), positions: z.record(z.string(), z.number().int().min(0)) })
    .optional()
    .describe('equal bins of the supply, and the bin that means each position'),
  imageFamily: z.string().nullable().optional().describe('the image it loads; null: it loads none'),
  partner: partId.nullable().optional().describe('the memory type it is paired with; null: it works with any'),
  moisture: z.enum(MOISTURE_LEVELS).optional(),
  bodyLimitC: positive.optional().describe('highest temperature of its body in reflow'),
  price: z.number().min(0).optional().describe('new, in the shop’s money; left out where it cannot be bought'),
  leadDays: z.number().min(0).optional().describe('days until a bought one is here'),
});
export type PartType = z.infer<typeof partTypeSchema>;

export const MEMORY_SCHOOLS = ['always', 'whenChecksFail', 'never'] as const;
export type MemoryPolicy = (typeof MEMORY_SCHOOLS)[number];
export const SCHOOL_WORDS: Readonly<Record<MemoryPolicy, string>> = {
  always: 'always',
  whenChecksFail: 'only when its checks fail',
  never: 'never',
};

/** How a bench treats a family: its school for the memory, and outcomes of rules that it has changed. */
export const partFamilySchema = z.object({
  format: z.literal('unisolda-part-family/1'),
  id: partId,
  name: z.string().trim().min(1).max(120),
  memory: z.enum(MEMORY_SCHOOLS).optional().describe('whether the memory moves or is rewritten with the controller'),
  rules: z
    .record(z.string(), z.enum(['fits', 'untried', 'blocks']))
    .default({})
    .describe('rules by name whose outcome this bench has changed'),
});
export type PartFamily = z.infer<typeof partFamilySchema>;

/** Checks a part profile against the format and itself. */
export function parsePartType(input: unknown): Result<PartType> {
  const parsed = partTypeSchema.safeParse(input);
  if (!parsed.success)
    return failAll(
      parsed.error.issues
        .slice(0, 10)
        .map((i) => ({ at: i.path.map(String).join('.') || 'file', message: `${i.message}.` })),
    );
  const { id, supplyV, position, strapCode } = parsed.data;
  const at = `part ${id}`;
  const problems = [];
  if (supplyV && supplyV[0] > supplyV[1])
    problems.push({ at, message: `Expected the lowest supply first; got ${supplyV[0]} to ${supplyV[1]} V.` });
  if (position !== 'straps' && strapCode)
    problems.push({ at, message: 'It has a strap code, but its position does not live in straps.' });
  for (const [name, bin] of Object.entries(strapCode?.positions ?? {})) {
    if (bin >= strapCode!.bins)
      problems.push({ at, message: `Position ${name} is bin ${bin}; expected 0 to ${strapCode!.bins - 1}.` });
  }
  return problems.length > 0 ? failAll(problems) : ok(parsed.data);
}

/** The school that counts for a family, and why. Default: only when its checks fail, fewer chips heated. */
export function memorySchool(family: PartFamily | undefined): { readonly school: MemoryPolicy; readonly why: string } {
  if (family?.memory) return { school: family.memory, why: `set for ${family.name} at this bench` };
  return { school: 'whenChecksFail', why: 'the default: fewer chips heated' };
}
