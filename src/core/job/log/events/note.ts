import { z } from 'zod';
import { wordsSchema } from './fields-schema';
import { defineEvent } from './definition';

const schema = z.object({ kind: z.literal('note'), text: wordsSchema });
export type NoteBody = z.infer<typeof schema>;

export const noteEvent = defineEvent<NoteBody>({
  type: 'note',
  version: 1,
  schema,
  upcasters: [],
  label: (_board, { text }) => `note: ${text}`,
});
