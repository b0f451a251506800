import { z } from 'zod';
import type { Sha256 } from '../../../identities';
import { boardThing, refText } from '../../../board';

/** Pieces that several events share. */
export const refSchema = refText;
/** Parts, rails, screws and shields. */
export const boardNameSchema = boardThing;
export const wordsSchema = z.string().trim().min(1).max(400);
export const sha256Schema: z.ZodType<Sha256, string> = z.string().regex(/^[0-9a-f]{64}$/);
export const pinSchema = z.string().regex(/^[^\s:~"]{1,12}$/);
export const sealSchema = sha256Schema
  .optional()
  .describe('the chain of custody up to here: SHA-256 of the link before');
