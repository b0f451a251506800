import { z } from 'zod';
import { measurementSchema, readingName, valueLabel, valueSchema } from '../../../diagnose';
import { readingWithFieldTerms } from './reading-terms';
import { defineEvent } from './definition';

const schema = z.object({ kind: z.literal('reading'), measurement: measurementSchema, value: valueSchema });
export type ReadingBody = z.infer<typeof schema>;

export const readingEvent = defineEvent<ReadingBody>({
  type: 'reading',
  version: 2,
  schema,
  upcasters: [readingWithFieldTerms],
  label: (board, { measurement, value }) => `${readingName(board, measurement)} ${valueLabel(measurement, value)}`,
});
