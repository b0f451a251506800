import { z } from 'zod';
import { partByRef, type Board } from '../board';
import { fail, ok, type Result } from '../result';
import type { Measurement, Reading, Value } from './measurement';

const name = z.string().min(1).max(24);
const plugSide = z.enum(['A', 'B']);

export const measurementSchema: z.ZodType<Measurement> = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('usb'), port: name, side: plugSide }),
  z.object({ kind: z.literal('look'), ref: name }),
  z.object({ kind: z.literal('drop'), net: name }),
  z.object({ kind: z.literal('ohm'), net: name }),
  z.object({ kind: z.literal('through'), ref: name, line: z.enum(['a', 'b', 'ab', '']) }),
  z.object({ kind: z.literal('volts'), rail: name }),
  z.object({ kind: z.literal('works'), fn: name }),
  z.object({ kind: z.literal('image'), ref: name }),
  z.object({ kind: z.literal('lift'), ref: name, net: name }),
]);

export const valueSchema: z.ZodType<Value> = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('figure'), value: z.number() }),
  z.object({ kind: z.literal('pair'), volts: z.number(), amps: z.number() }),
  z.object({ kind: z.literal('open') }),
  z.object({ kind: z.literal('beep') }),
  z.object({ kind: z.literal('pass') }),
  z.object({ kind: z.literal('fail') }),
]);

/** Readings as the command line takes them. */
export const readingSchema: z.ZodType<Reading> = z.object({
  measurement: measurementSchema,
  value: valueSchema,
  absent: z.array(name).optional().describe('parts that were off the board'),
  replaced: z.array(name).optional().describe('parts that had been replaced before'),
});

/** The kinds of value that each kind of measurement can give. */
const VALUES: Record<Measurement['kind'], readonly Value['kind'][]> = {
  usb: ['pair'],
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
  if ('ref' in m && !partByRef(board, m.ref)) return fail(`Expected a part of this board; got "${m.ref}".`);
  if ('net' in m && !board.nets[m.net]) return fail(`Expected a net of this board; got "${m.net}".`);
  if (m.kind === 'usb' && !board.ports.some((p) => p.id === m.port)) {
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
