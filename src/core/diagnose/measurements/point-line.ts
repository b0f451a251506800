import type { PartRef } from '../../identities';
import { findPlace, groundNet, isTwoTerminal, netNamed, partNamed, railOfNet, type Board } from '../../board';
import { defineCommand } from '../../command-line';
import { fail, ok, type Result } from '../../result';
import { unknownPlace } from '../places';
import type { MeasurementEntry, MeasurementLineContext } from './definition';
import { parseValue, parseVolts, takeUnit } from './line-value';

const LINES = ['a', 'b', 'ab'] as const;

/**
 * A line that begins with a point, a part or a net: ohms, a drop or volts there, by its unit; through a part where the
 * part has two ends or a line is named. It comes last: whatever begins with no command's word is a place.
 */
export const pointCommand = defineCommand<MeasurementLineContext, MeasurementEntry>({
  name: 'point',
  matches: () => true,
  usage: [
    { example: 'c14 0.4 ohm', help: 'resistance from a point or part to ground; also tp7 6.6k, tp3 ol, c16 beep' },
    { example: 'vbus 5.02', help: 'voltage of the rail at that place; also tp7 3.31v' },
    { example: 'vin 14.9 ripple 120m', help: 'the same, with its ripple from peak to peak' },
    { example: 'vsys 3.7 swings', help: 'the same, where it comes and goes' },
    { example: 'cc1 drop 0.262', help: 'diode-mode drop of a net at the port' },
    { example: 'f1 0.02', help: 'through a part; its lines: fl1 a 0.2, fl1 ab open; q1 thru ol' },
  ],
  parse: ({ board, mode }, { head, args }) => parsePoint(board, head, args, mode),
  complete: () => ['ohm', 'ol', 'open', 'beep', 'drop', 'volt', 'thru', 'ripple', 'swings'],
});

function parsePoint(
  board: Board,
  name: string,
  words: readonly string[],
  mode: MeasurementLineContext['mode'],
): Result<MeasurementEntry> {
  const part = partNamed(board, name);
  const line = LINES.find((l) => l === words[0]);
  if (part?.kind === 'lineFilter' && line) return parseThrough(part.ref, line, words.slice(1));
  if (part && (words[0] === 'thru' || words[0] === 'through')) return parseThrough(part.ref, '', words.slice(1));
  if (part && isTwoTerminal(part) && part.kind !== 'capacitor') return parseThrough(part.ref, '', words);
  const place = findPlace(board, name);
  if (!place) return fail(unknownPlace(board, name));
  if (place.net === groundNet(board))
    return fail(`${place.name} is ground itself: expected a point that is measured against it.`);
  const { rest, unit } = takeUnit(words);
  const isNetName = netNamed(board, name) !== undefined;
  const rail = railOfNet(board, place.net);
  const kind = unit ?? (rail && (mode === 'volt' || isNetName) ? 'volt' : 'ohm');
  if (kind === 'volt') {
    if (!rail) return fail(`${place.name} is on ${place.net}, which is not a rail: expected ohms or a drop there.`);
    const value = parseVolts(rest);
    if (!value.ok) return value;
    const measurement = { kind: 'railVoltage', rail: rail.id } as const;
    return ok({ measurement, value: value.value, title: `${place.name}, voltage of ${rail.id}` });
  }
  const value = parseValue(rest);
  if (!value.ok) return value;
  if (kind === 'drop') {
    if (value.value.kind === 'beep') return fail('Expected a drop in volts, such as 0.262, or ol.');
    const measurement = { kind: 'diodeDrop', net: place.net } as const;
    return ok({ measurement, value: value.value, title: `${place.net}, diode mode` });
  }
  const measurement = { kind: 'groundResistance', net: place.net } as const;
  return ok({ measurement, value: value.value, title: `${place.name} to ground` });
}

function parseThrough(ref: PartRef, line: 'a' | 'b' | 'ab' | '', words: readonly string[]): Result<MeasurementEntry> {
  const { rest, unit } = takeUnit(words);
  if (unit === 'volt' || unit === 'drop')
    return fail(`Expected ohms across ${ref}; got ${unit === 'volt' ? 'volts' : 'a drop'}.`);
  const value = parseValue(rest);
  return value.ok ? ok({ measurement: { kind: 'seriesResistance', ref, line }, value: value.value }) : value;
}
