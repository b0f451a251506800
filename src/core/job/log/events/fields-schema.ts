import { z } from 'zod';

/** Pieces that several events share. */
export const refSchema = z.string().regex(/^[A-Z]{1,3}[0-9]{1,4}$/);
/** Parts, rails, screws and shields. */
export const boardNameSchema = z.string().regex(/^[A-Z][A-Z0-9_]{0,23}$/);
export const wordsSchema = z.string().trim().min(1).max(400);
export const sha256Schema = z.string().regex(/^[0-9a-f]{64}$/);
export const pinSchema = z.string().regex(/^[A-Z0-9]{1,6}$/);
export const sealSchema = sha256Schema
  .optional()
  .describe('the chain of custody up to here: SHA-256 of the link before');
