import { z } from 'zod';
import { defineEvent } from './definition';

const schema = z.object({
  kind: z.literal('trace'),
  port: z.string().max(24),
  side: z.enum(['A', 'B']),
  name: z.string().max(200),
  timesS: z.array(z.number()).min(3).max(1200),
  volts: z.array(z.number()).min(3).max(1200),
  amps: z.array(z.number()).min(3).max(1200),
});
export type TraceBody = z.infer<typeof schema>;

export const traceEvent = defineEvent<TraceBody>({
  type: 'trace',
  version: 1,
  schema,
  upcasters: [],
  label: (_board, { side }) => `trace ${side} way`,
});
