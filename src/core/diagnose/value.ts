import { z } from 'zod';

/** What makes a port doubtful to the eye. */
export const LOOK_FINDINGS = ['pins', 'tongue', 'corrosion', 'liquid', 'shell', 'debris'] as const;
export type LookFinding = (typeof LOOK_FINDINGS)[number];

/** What else was seen of a voltage: its ripple from peak to peak, or that it comes and goes. */
export interface Unsteady {
  readonly ripplePpV?: number;
  readonly swings?: boolean;
}

/**
 * A figure, or what the meter said instead of one. `pass` and `fail` answer looks, functions and image checks; `choice`
 * is one of the named answers of its kind.
 */
export type Value =
  | ({ readonly kind: 'figure'; readonly value: number } & Unsteady)
  | { readonly kind: 'pair'; readonly volts: number; readonly amps: number }
  | { readonly kind: 'open' }
  | { readonly kind: 'beep' }
  | { readonly kind: 'pass' }
  | { readonly kind: 'fail'; readonly seen?: readonly LookFinding[] }
  | { readonly kind: 'choice'; readonly choice: string };

export const valueSchema: z.ZodType<Value> = z.discriminatedUnion('kind', [
  z.object({
    kind: z.literal('figure'),
    value: z.number(),
    ripplePpV: z.number().min(0).max(100).optional().describe('of a voltage, peak to peak'),
    swings: z.boolean().optional().describe('the voltage comes and goes'),
  }),
  z.object({ kind: z.literal('pair'), volts: z.number(), amps: z.number() }),
  z.object({ kind: z.literal('open') }),
  z.object({ kind: z.literal('beep') }),
  z.object({ kind: z.literal('pass') }),
  z.object({ kind: z.literal('fail'), seen: z.array(z.enum(LOOK_FINDINGS)).max(6).optional() }),
  z.object({ kind: z.literal('choice'), choice: z.string().min(1).max(24).describe('a named answer of the test') }),
]);

/** What else was seen of a voltage, in words. */
export const unsteadyLabels = ({ ripplePpV, swings }: Unsteady): string[] => [
  ...(swings ? ['it comes and goes'] : []),
  ...(ripplePpV === undefined ? [] : [`ripple ${ripplePpV.toFixed(2)} V`]),
];
