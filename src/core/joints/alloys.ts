import { z } from 'zod';

/** Solidus and liquidus in °C. Source: published alloy tables, J-STD-006 designations (values from memory). */
export const ALLOYS = {
  SAC305: { solidusC: 217, liquidusC: 220, words: 'lead-free' },
  Sn63Pb37: { solidusC: 183, liquidusC: 183, words: 'leaded' },
  Sn42Bi58: { solidusC: 138, liquidusC: 138, words: 'low-melt bismuth' },
} as const;

export const alloySchema = z.enum(['SAC305', 'Sn63Pb37', 'Sn42Bi58']);
export type AlloyName = z.infer<typeof alloySchema>;
