import { z } from 'zod';
import { partByRef, type Board } from '../board';
import { fail, ok, type Result } from '../result';
import { OUTSIDE_THINGS } from './faults';
import { LOOK_FINDINGS, type Measurement, type Reading, type Value } from './measurement';
import { STOPS } from '../usb';
import { SHAPES } from './prediction';

const name = z.string().min(1).max(24);
const plugSide = z.enum(['A', 'B']);

export const measurementSchema: z.ZodType<Measurement> = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('usb'), port: name, side: plugSide }),
  z.object({ kind: z.literal('shape'), port: name, side: plugSide }),
  z.object({ kind: z.literal('talk'), port: name, side: plugSide }),
  z.object({ kind: z.literal('tester'), port: name }),
  z.object({ kind: z.literal('swap'), port: name, what: z.enum(OUTSIDE_THINGS) }),
  z.object({ kind: z.literal('look'), ref: name }),
  z.object({ kind: z.literal('pin'), port: name, pin: z.string().regex(/^[AB]([1-9]|1[0-2])$/) }),
  z.object({ kind: z.literal('joint'), ref: name, pin: z.string().regex(/^[A-Z0-9]{1,6}$/) }),
  z.object({ kind: z.literal('drop'), net: name }),
  z.object({ kind: z.literal('ohm'), net: name }),
  z.object({ kind: z.literal('through'), ref: name, line: z.enum(['a', 'b', 'ab', '']) }),
  z.object({ kind: z.literal('volts'), rail: name }),
  z.object({ kind: z.literal('works'), fn: name }),
  z.object({ kind: z.literal('image'), ref: name }),
  z.object({ kind: z.literal('lift'), ref: name, net: name }),
]);

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
  z.object({ kind: z.literal('shape'), shape: z.enum(SHAPES) }),
  z.object({ kind: z.literal('talk'), stop: z.enum(STOPS) }),
]);

/** Readings as the command line takes them. */
export const readingSchema: z.ZodType<Reading> = z.object({
  measurement: measurementSchema,
  value: valueSchema,
  absent: z.array(name).optional().describe('parts that were off the board'),
  replaced: z.array(name).optional().describe('parts that had been replaced before'),
  swapped: z.array(z.enum(OUTSIDE_THINGS)).optional().describe('what had been swapped for a known-good one'),
});

/** The kinds of value that each kind of measurement can give. */
const VALUES: Record<Measurement['kind'], readonly Value['kind'][]> = {
  usb: ['pair'],
  shape: ['shape'],
  talk: ['talk'],
  tester: ['pass', 'fail'],
  swap: ['pass', 'fail'],
  pin: ['figure', 'open'],
  joint: ['figure', 'open'],
  look: ['pass', 'fail'],
  drop: ['figure', 'open'],
  ohm: ['figure', 'open', 'beep'],
  through: ['figure', 'open', 'beep'],
  volts: ['figure'],
  works: ['pass', 'fail'],
  image: ['pass', 'fail'],
  lift: ['figure', 'open', 'beep'],
};

/** Checks that a reading speaks of this board: its names exist and its value is of the kind its test gives. */
export function checkReading(
  board: Board,
  { measurement: m, value }: Pick<Reading, 'measurement' | 'value'>,
): Result<true> {
  if (!VALUES[m.kind].includes(value.kind)) {
    return fail(`Expected ${VALUES[m.kind].join(' or ')} for a ${m.kind} reading; got ${value.kind}.`);
  }
  if (value.kind === 'figure' && (value.ripplePpV ?? value.swings) !== undefined && m.kind !== 'volts')
    return fail(`Expected ripple and swings of a voltage only; got them of a ${m.kind} reading.`);
  if ('ref' in m && !partByRef(board, m.ref)) return fail(`Expected a part of this board; got "${m.ref}".`);
  if (m.kind === 'joint' && partByRef(board, m.ref)!.pins[m.pin] === undefined)
    return fail(`Expected a joint of ${m.ref} that is connected; got "${m.pin}".`);
  if ('net' in m && !board.nets[m.net]) return fail(`Expected a net of this board; got "${m.net}".`);
  if ('port' in m && !board.ports.some((p) => p.id === m.port)) {
    return fail(`Expected one of the ports ${board.ports.map((p) => p.id).join(', ')}; got "${m.port}".`);
  }
  if (m.kind === 'volts' && !board.rails.some((r) => r.id === m.rail)) {
    return fail(`Expected a rail of this board; got "${m.rail}".`);
  }
  if (m.kind === 'works' && !board.functions.some((f) => f.id === m.fn)) {
    return fail(`Expected one of ${board.functions.map((f) => f.id).join(', ')}; got "${m.fn}".`);
  }
  return ok(true);
}
