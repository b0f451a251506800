import { z } from 'zod';

/** What a person said once of an instrument's files: applied to those that look the same. */
export const filePresetSchema = z.object({
  name: z.string().trim().min(1).max(60),
  reader: z.string().min(1).max(40),
  signature: z.string().min(1).max(400),
  answers: z.record(z.string().max(200), z.string().max(200)),
});
export type FilePreset = z.infer<typeof filePresetSchema>;

/** Most instruments of a bench. */
export const MOST_PRESETS = 100;
