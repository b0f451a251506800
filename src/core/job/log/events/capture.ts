import { z } from 'zod';
import { defineEvent } from './definition';

/** A decoded message as it is kept: enough to read the dialogue again. */
const packetSchema = z.object({
  atS: z.number(),
  set: z.enum(['SOP', "SOP'", "SOP''", 'Hard Reset', 'Cable Reset']),
  headerWord: z.number().int().nullable(),
  objects: z.array(z.number().int()).max(7),
  intact: z.boolean(),
});

const schema = z.object({
  kind: z.literal('capture'),
  port: z.string().max(24),
  name: z.string().max(200),
  line: z.enum(['CC1', 'CC2']).nullable(),
  durationS: z.number(),
  packets: z.array(packetSchema).max(400),
});
export type CaptureBody = z.infer<typeof schema>;

export const captureEvent = defineEvent<CaptureBody>({
  type: 'capture',
  version: 1,
  schema,
  upcasters: [],
  label: (_board, { name }) => `capture ${name}`,
});
