import { z } from 'zod';

/**
 * An instrument as data: how its line is set, what it is told and asked, how its answers are read. A shop writes its own as a file of
 * this form; the shipped ones are in `dialects.ts`.
 */

const text = z.string().min(1).max(80);
/** A command with the place of its figure, such as `VOLT {value}`. */
const withValue = text.refine((t) => t.includes('{value}'), 'expected {value} where the figure goes');

const lineSchema = z.strictObject({
  baud: z.number().int().min(300).max(4_000_000).default(9600),
  dataBits: z.union([z.literal(7), z.literal(8)]).default(8),
  parity: z.enum(['none', 'even', 'odd']).default('none'),
  stopBits: z.union([z.literal(1), z.literal(2)]).default(1),
  end: z.enum(['lf', 'cr', 'crlf']).default('lf'),
  /** It sends back each line that it is sent, before its answer. */
  echo: z.boolean().default(false),
  /** What it says to each command that is no question, where it says anything. */
  acknowledge: text.optional(),
  answerMs: z.number().int().min(20).max(20_000).default(2000),
});
export type LineSettings = z.infer<typeof lineSchema>;

const identifySchema = z.strictObject({
  ask: text,
  /** What its answer begins with; any answer will do where this is left out. */
  begins: text.optional(),
});

const functionSchema = z.strictObject({
  /** Sent before the question. */
  set: z.array(text).max(8).default([]),
  /** A question that says which function it stands in, and what the answer has to hold. */
  check: z.strictObject({ ask: text, says: text }).optional(),
  /** The question for one reading. Left out, the meter talks by itself, and `marks` tell which function it stands in. */
  ask: text.optional(),
  /** What follows the figure in this function, unit first, such as `V DC`; a prefix of the unit may stand before it. */
  marks: z.array(text).max(8).default([]),
});
export type MeterFunction = z.infer<typeof functionSchema>;

const numbers = { decimalComma: z.boolean().default(false) };

const meterSchema = z.strictObject({
  kind: z.literal('meter'),
  identify: identifySchema.optional(),
  functions: z
    .strictObject({ V: functionSchema.optional(), Ω: functionSchema.optional(), drop: functionSchema.optional() })
    .refine((f) => Object.values(f).some(Boolean), 'expected at least one function')
    .refine(
      (f) => Object.values(f).every((fn) => fn === undefined || fn.ask !== undefined || fn.marks.length > 0),
      'expected a question, or the marks of a meter that talks by itself',
    ),
});
export type MeterDialect = z.infer<typeof meterSchema>;

const supplySchema = z.strictObject({
  kind: z.literal('supply'),
  identify: identifySchema.optional(),
  ...numbers,
  decimals: z.number().int().min(0).max(6).default(3),
  setVolts: withValue,
  setLimit: withValue,
  on: text,
  off: text,
  askVolts: text,
  askLimit: text,
  askState: text,
  /** Answers to `askState`; any other is not known, which counts as on. */
  onSays: z.array(text).min(1).default(['1', 'ON']),
  offSays: z.array(text).min(1).default(['0', 'OFF']),
  measureVolts: text,
  measureAmps: text,
  /** Switches the output off by itself when nothing was said for so many seconds: the command, with {value}. */
  watchdog: withValue.optional(),
});
export type SupplyDialect = z.infer<typeof supplySchema>;

const COLUMNS = ['time', 'volts', 'amps', 'celsius', 'other'] as const;
const streamSchema = z.strictObject({
  kind: z.enum(['usbMeter', 'logger']),
  identify: identifySchema.optional(),
  ...numbers,
  start: text.optional(),
  stop: text.optional(),
  separator: z.enum([',', ';', '\t', ' ']).default(','),
  columns: z.array(z.enum(COLUMNS)).min(2).max(20),
  timeUnit: z.enum(['s', 'ms', 'none']).default('s'),
});
export type StreamDialect = z.infer<typeof streamSchema>;

export const instrumentSchema = z.strictObject({
  format: z.literal(1),
  name: z.string().min(1).max(60),
  line: lineSchema.prefault({}),
  dialect: z.discriminatedUnion('kind', [meterSchema, supplySchema, streamSchema]),
});
export type InstrumentDefinition = z.infer<typeof instrumentSchema>;
