import { findPlace, groundNet, isTwoTerminal, partByRef, railOfNet, type Board } from '../board';
import { readingName, valueWords } from '../diagnose';
import { fail, ok, type Result } from '../result';
import { parseFigure } from '../units';
import { parseContact, parseLook, parseSwap, parseTalk, parseTester, parseUsb } from './entry-port';
import { parseFlat, parseLifted } from './entry-site';
import { parseDrop, parseValue, parseVolts, reading, takeUnit, verdictOf } from './entry-value';
import { access, parseMended, parseOff, parseOn, parseShield, type Entry } from './entry-work';
import type { JobState } from './fold';
import { unknownPlace } from './places';
import { parseSoak } from './soak';

export type { Entry };

/** How a bare figure is taken: ohms while probing unpowered, volts while proving. */
export type EntryMode = 'ohm' | 'volt';

/**
 * Reads one line of the entry grammar:
 *
 *   c14 0.4 ohm · tp3 ol · tp7 beep · vbus 5.02 · cc1 drop 0.262 · fl1 a 0.2 · fl1 ab open · f1 thru 0.02
 *   usb a 14.8v 0.49 · usb j2 b 5.02 0.01 · usb a swing · look j1 good · look j1 bad pins corrosion
 *   a5 0.262 · j2 b7 ol · talk a unanswered · tester fail · swap charger works · swap j2 cable same · pack 3.85
 *   try charge works · check u9 bad
 *   vin 14.9 ripple 120m · vsys 3.7 swings · joint u4 12 0.41 · joint u4 13 ol
 *   lifted u4 12 13 · lifted u4 none · flat u4 52 55 50 54
 *   off u4 · on u4 new · on u4 same · mended vin · shield sh1 off · pack out · open · out · closed · note … · fix c14 6.4 kohm
 */
export function parseEntry(board: Board, state: JobState, text: string, mode: EntryMode): Result<Entry> {
  const words = text.trim().toLowerCase().split(/\s+/).filter(Boolean);
  if (words.length === 0) return fail('Expected a point and a value, such as: tp7 1.8 ohm.');
  const [head, ...rest] = words;
  switch (head) {
    case 'fix':
      return parseFix(board, state, text.trim().slice(3).trim(), mode);
    case 'usb':
      return parseUsb(board, state, rest);
    case 'talk':
      return parseTalk(board, state, rest);
    case 'tester':
      return parseTester(board, state, rest);
    case 'swap':
      return parseSwap(board, state, rest);
    case 'look':
      return parseLook(board, rest);
    case 'check':
      return parseCheck(board, rest);
    case 'try':
      return parseTry(board, rest);
    case 'off':
      return parseOff(board, state, rest);
    case 'on':
      return parseOn(board, state, rest);
    case 'shield':
      return parseShield(board, state, rest);
    case 'mended':
      return parseMended(board, state, rest);
    case 'lifted':
      return parseLifted(board, rest);
    case 'joint':
      return parseJoint(board, rest);
    case 'flat':
      return parseFlat(board, rest);
    case 'soak':
      return parseSoak(state.soaks, rest);
    case 'pack':
      return parsePack(board, rest);
    case 'open':
    case 'out':
    case 'closed':
      return rest.length === 0 ? access(head) : fail(`Expected "${head}" alone; got "${text.trim()}".`);
    case 'note':
      return rest.length > 0
        ? ok({ body: { kind: 'note', text: text.trim().slice(4).trim() }, echo: 'Note kept with the job.' })
        : fail('Expected words after "note".');
    default:
      return parseContact(board, words) ?? parsePoint(board, head, rest, mode);
  }
}

function parseFix(board: Board, state: JobState, text: string, mode: EntryMode): Result<Entry> {
  const entry = parseEntry(board, state, text, mode);
  if (!entry.ok) return entry;
  const { body, echo } = entry.value;
  if (body.kind !== 'reading') return fail('Expected a reading after "fix", such as: fix c14 6.4.');
  const name = readingName(board, body.measurement);
  const old = [...state.readings].reverse().find((r) => readingName(board, r.measurement) === name);
  if (!old) return fail(`Expected a reading that was taken before; ${name} has none yet.`);
  return ok({
    body,
    replaces: old.seq,
    echo: `Corrects ${name} from ${valueWords(old.measurement, old.value)}: ${echo}`,
  });
}

function parseCheck(board: Board, words: string[]): Result<Entry> {
  const refs = [...new Set(board.ports.map((p) => p.imagePart))];
  const ref = refs.find((r) => r.toLowerCase() === words[0]);
  if (!ref) return fail(`Expected ${refs.join(' or ')}; got "${words[0] ?? ''}".`);
  const value = verdictOf(words[1]);
  return value.ok ? reading(board, { kind: 'image', ref }, value.value) : value;
}

/** `joint u4 12 0.41`: a drop at one joint of a part, as its walk asks for. */
function parseJoint(board: Board, [word, pin = '', ...figures]: string[]): Result<Entry> {
  const part = partByRef(board, (word ?? '').toUpperCase());
  if (!part) return fail(`Expected a part of this board after "joint"; got "${word ?? ''}".`);
  const joint = pin.toUpperCase();
  if (part.pins[joint] === undefined)
    return fail(
      `Expected a joint of ${part.ref} that is connected, such as ${Object.keys(part.pins)[0]}; got "${pin}".`,
    );
  const value = parseDrop(figures, `joint ${joint} of ${part.ref}`);
  return value.ok ? reading(board, { kind: 'joint', ref: part.ref, pin: joint }, value.value) : value;
}

function parseTry(board: Board, words: string[]): Result<Entry> {
  const fn = board.functions.find((f) => f.id === words[0]);
  if (!fn) return fail(`Expected one of ${board.functions.map((f) => f.id).join(', ')}; got "${words[0] ?? ''}".`);
  const value = verdictOf(words[1]);
  return value.ok ? reading(board, { kind: 'works', fn: fn.id }, value.value) : value;
}

/** `pack in`, `pack out`, or the voltage at the battery connector, charger in and pack out: `pack 3.85`. */
function parsePack(board: Board, words: string[]): Result<Entry> {
  const [state] = words;
  const figure = parseFigure((state ?? '').replace(/v$/, ''));
  if (figure.ok && words.length === 1) {
    const rail = packRail(board);
    if (!rail) return fail('Expected a board with a rail at its battery connector; this one has none.');
    const title = 'Battery connector, charger in and pack out';
    return reading(board, { kind: 'volts', rail }, { kind: 'figure', value: figure.value }, title);
  }
  if (state !== 'in' && state !== 'out')
    return fail(`Expected in, out, or the connector’s voltage after "pack"; got "${words.join(' ')}".`);
  return ok({
    body: { kind: 'pack', state },
    echo: state === 'out' ? 'The pack is unplugged.' : 'The pack is plugged in.',
  });
}

/** The rail that comes to the battery connector. */
export function packRail(board: Board): string | undefined {
  const nets = board.parts.filter((p) => p.kind === 'batteryConnector').flatMap((p) => Object.values(p.pins));
  return board.rails.find((r) => nets.includes(r.net))?.id;
}

const LINES = ['a', 'b', 'ab'] as const;

function parsePoint(board: Board, name: string, words: string[], mode: EntryMode): Result<Entry> {
  const part = partByRef(board, name.toUpperCase());
  const line = LINES.find((l) => l === words[0]);
  if (part?.kind === 'lineFilter' && line) return parseThrough(board, part.ref, line, words.slice(1));
  if (part && (words[0] === 'thru' || words[0] === 'through')) return parseThrough(board, part.ref, '', words.slice(1));
  if (part && isTwoTerminal(part) && part.kind !== 'capacitor') return parseThrough(board, part.ref, '', words);
  const place = findPlace(board, name);
  if (!place) return fail(unknownPlace(board, name));
  if (place.net === groundNet(board))
    return fail(`${place.name} is ground itself: expected a point that is measured against it.`);
  const { rest, unit } = takeUnit(words);
  const isNetName = board.nets[name.toUpperCase()] !== undefined;
  const kind = unit ?? (railOfNet(board, place.net) && (mode === 'volt' || isNetName) ? 'volt' : 'ohm');
  if (kind === 'volt') {
    const rail = railOfNet(board, place.net);
    if (!rail) return fail(`${place.name} is on ${place.net}, which is not a rail: expected ohms or a drop there.`);
    const value = parseVolts(rest);
    if (!value.ok) return value;
    return reading(board, { kind: 'volts', rail: rail.id }, value.value, `${place.name}, voltage of ${rail.id}`);
  }
  const value = parseValue(rest);
  if (!value.ok) return value;
  if (kind === 'drop') {
    if (value.value.kind === 'beep') return fail('Expected a drop in volts, such as 0.262, or ol.');
    return reading(board, { kind: 'drop', net: place.net }, value.value, `${place.net}, diode mode`);
  }
  return reading(board, { kind: 'ohm', net: place.net }, value.value, `${place.name} to ground`);
}

function parseThrough(board: Board, ref: string, line: 'a' | 'b' | 'ab' | '', words: string[]): Result<Entry> {
  const { rest, unit } = takeUnit(words);
  if (unit === 'volt' || unit === 'drop')
    return fail(`Expected ohms across ${ref}; got ${unit === 'volt' ? 'volts' : 'a drop'}.`);
  const value = parseValue(rest);
  return value.ok ? reading(board, { kind: 'through', ref, line }, value.value) : value;
}
