import { z } from 'zod';
import { defineEvent } from './definition';

const schema = z.object({ kind: z.literal('undo'), seq: z.number().int().positive() });
export type UndoBody = z.infer<typeof schema>;

export const undoEvent = defineEvent<UndoBody>({
  type: 'undo',
  version: 1,
  schema,
  upcasters: [],
  label: () => 'undo',
});
