import { parseSoak } from './soak';
import { findPlace, groundNet, isTwoTerminal, partByRef, railOfNet, type Board } from '../board';
import {
  LOOK_FINDINGS,
  OUTSIDE_THINGS,
  measurementTitle,
  readingName,
  valueWords,
  type LookFinding,
  type Measurement,
  type Shape,
  type Value,
} from '../diagnose';
import { fail, ok, type Result } from '../result';
import { formatAmp, formatVolt, parseFigure } from '../units';
import { access, parseMended, parseOff, parseOn, parseShield, type Entry } from './entry-work';
import { parseFlat, parseLifted } from './entry-site';
import type { Stop } from '../usb';
import type { JobState } from './fold';
import { refusedPower } from './gate';

export type { Entry };

/** How a bare figure is taken: ohms while probing unpowered, volts while proving. */
export type EntryMode = 'ohm' | 'volt';

const GOOD = new Set(['good', 'ok', 'pass', 'works', 'fine', 'yes']);
const BAD = new Set(['bad', 'fail', 'fails', 'dead', 'damaged', 'no']);

/**
 * Reads one line of the entry grammar:
 *
 *   c14 0.4 ohm · tp3 ol · tp7 beep · vbus 5.02 · cc1 drop 0.262 · fl1 a 0.2 · fl1 ab open · f1 thru 0.02
 *   usb a 14.8v 0.49 · usb j2 b 5.02 0.01 · usb a swing · look j1 good · look j1 bad pins corrosion
 *   a5 0.262 · j2 b7 ol · talk a unanswered · tester fail · swap charger works · swap j2 cable same · pack 3.85
 *   try charge works · check u9 bad
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

const reading = (board: Board, measurement: Measurement, value: Value, title?: string): Result<Entry> =>
  ok({
    body: { kind: 'reading', measurement, value },
    echo: `${title ?? measurementTitle(board, measurement)}, ${valueWords(measurement, value)}`,
  });

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

/** The port named first, or the only one; refused where it must not be powered. */
function takePort(
  board: Board,
  state: JobState,
  words: string[],
  after: string,
): Result<{ port: string; rest: string[] }> {
  const ports = board.ports.map((p) => p.id);
  const named = ports.find((id) => id.toLowerCase() === words[0]);
  if (!named && ports.length > 1)
    return fail(`Expected one of the ports ${ports.join(', ')} after "${after}"; got "${words[0] ?? ''}".`);
  const port = named ?? ports[0];
  const refused = refusedPower(state, port);
  return refused === undefined ? ok({ port, rest: named ? words.slice(1) : words }) : fail(refused);
}

const SHAPE_NAMES: Record<string, Shape> = {
  steady: 'steady',
  swing: 'swing',
  swings: 'swing',
  restart: 'restart',
  restarts: 'restart',
  early: 'early',
};

function parseUsb(board: Board, state: JobState, words: string[]): Result<Entry> {
  const taken = takePort(board, state, words, 'usb');
  if (!taken.ok) return taken;
  const { port, rest } = taken.value;
  const [side, voltText, ampText, ...more] = rest;
  const way = side === 'a' ? 'A' : 'B';
  if (side !== 'a' && side !== 'b') return fail(`Expected the plug’s way, a or b; got "${side ?? ''}".`);
  const shape = SHAPE_NAMES[voltText ?? ''];
  if (shape && ampText === undefined)
    return reading(board, { kind: 'shape', port, side: way }, { kind: 'shape', shape });
  if (voltText === undefined || ampText === undefined)
    return fail('Expected volts and amps, such as: usb a 14.8 0.49.');
  if (more.length > 0) return fail(`Expected volts and amps only; got "${more.join(' ')}" after them.`);
  const volts = parseFigure(voltText.replace(/v$/, ''));
  if (!volts.ok) return volts;
  const amps = parseFigure(ampText.replace(/a$/, ''));
  if (!amps.ok) return amps;
  if (volts.value < 0 || volts.value > 60) return fail(`Expected a port voltage from 0 to 60 V; got ${volts.value}.`);
  if (amps.value < 0 || amps.value > 10) return fail(`Expected a port current from 0 to 10 A; got ${amps.value}.`);
  const title = board.ports.length > 1 ? `${port}, plugged ${way} way` : `Plugged ${way} way`;
  const pair = `${formatVolt(volts.value)} and ${formatAmp(amps.value)}`;
  return ok({
    body: {
      kind: 'reading',
      measurement: { kind: 'usb', port, side: way },
      value: { kind: 'pair', volts: volts.value, amps: amps.value },
    },
    echo: `${title}: ${pair}`,
  });
}

function verdictOf(word: string | undefined): Result<Value> {
  if (word !== undefined && GOOD.has(word)) return ok({ kind: 'pass' });
  if (word !== undefined && BAD.has(word)) return ok({ kind: 'fail' });
  return fail(`Expected good or bad; got "${word ?? ''}".`);
}

function parseLook(board: Board, words: string[]): Result<Entry> {
  const refs = board.ports.map((p) => p.id);
  const ref = refs.find((r) => r.toLowerCase() === words[0]);
  if (!ref) return fail(`Expected ${refs.join(' or ')}; got "${words[0] ?? ''}".`);
  const value = verdictOf(words[1]);
  if (!value.ok) return value;
  const seen = words.slice(2);
  const odd = seen.find((w) => !(LOOK_FINDINGS as readonly string[]).includes(w));
  if (odd !== undefined) return fail(`Expected what was seen: ${LOOK_FINDINGS.join(', ')}; got "${odd}".`);
  if (value.value.kind === 'pass')
    return seen.length === 0
      ? reading(board, { kind: 'look', ref }, value.value)
      : fail(`Expected "good" alone; got "${seen.join(' ')}" after it.`);
  return reading(board, { kind: 'look', ref }, { kind: 'fail', seen: [...new Set(seen as LookFinding[])] });
}

function parseCheck(board: Board, words: string[]): Result<Entry> {
  const refs = [...new Set(board.ports.map((p) => p.imagePart))];
  const ref = refs.find((r) => r.toLowerCase() === words[0]);
  if (!ref) return fail(`Expected ${refs.join(' or ')}; got "${words[0] ?? ''}".`);
  const value = verdictOf(words[1]);
  return value.ok ? reading(board, { kind: 'image', ref }, value.value) : value;
}

const STOP_NAMES: Record<string, Stop> = {
  silent: 'silent',
  unanswered: 'offersUnanswered',
  unasked: 'offersNotAsked',
  refused: 'refused',
  unready: 'notReady',
  contract: 'contract',
  collapsed: 'collapsed',
  noisy: 'noisy',
};

function parseTalk(board: Board, state: JobState, words: string[]): Result<Entry> {
  const taken = takePort(board, state, words, 'talk');
  if (!taken.ok) return taken;
  const [side, name] = taken.value.rest;
  if (side !== 'a' && side !== 'b') return fail(`Expected the plug’s way, a or b; got "${side ?? ''}".`);
  const stop = STOP_NAMES[name ?? ''];
  if (!stop) return fail(`Expected where it stopped: ${Object.keys(STOP_NAMES).join(', ')}; got "${name ?? ''}".`);
  const measurement = { kind: 'talk', port: taken.value.port, side: side === 'a' ? 'A' : 'B' } as const;
  return reading(board, measurement, { kind: 'talk', stop });
}

function parseTester(board: Board, state: JobState, words: string[]): Result<Entry> {
  const taken = takePort(board, state, words, 'tester');
  if (!taken.ok) return taken;
  const value = verdictOf(taken.value.rest[0]);
  return value.ok ? reading(board, { kind: 'tester', port: taken.value.port }, value.value) : value;
}

function parseSwap(board: Board, state: JobState, words: string[]): Result<Entry> {
  const taken = takePort(board, state, words, 'swap');
  if (!taken.ok) return taken;
  const [name, answer] = taken.value.rest;
  const what = OUTSIDE_THINGS.find((t) => t === name);
  if (!what) return fail(`Expected ${OUTSIDE_THINGS.join(', ')} after "swap"; got "${name ?? ''}".`);
  if (answer !== 'same' && !GOOD.has(answer ?? '') && !BAD.has(answer ?? ''))
    return fail(`Expected works or same after "swap ${what}"; got "${answer ?? ''}".`);
  const value: Value = { kind: GOOD.has(answer) ? 'pass' : 'fail' };
  return reading(board, { kind: 'swap', port: taken.value.port, what }, value);
}

const CONTACT = /^[ab]([1-9]|1[0-2])$/;

/** A contact of the port, as `a5 0.262` or `j2 b7 ol`; undefined where the line is about something else. */
function parseContact(board: Board, words: string[]): Result<Entry> | undefined {
  const named = board.ports.find((p) => p.id.toLowerCase() === words[0]);
  const [contact, ...rest] = named ? words.slice(1) : words;
  if (!CONTACT.test(contact ?? '')) return undefined;
  if (!named && board.ports.length > 1)
    return fail(`Expected the port before the contact, such as: j2 ${contact} 0.262; got "${words.join(' ')}".`);
  const { rest: figures, unit } = takeUnit(rest);
  if (unit === 'ohm') return fail(`Expected a diode-mode drop at contact ${contact.toUpperCase()}; got ohms.`);
  const value = parseValue(figures);
  if (!value.ok) return value;
  if (value.value.kind === 'beep') return fail('Expected a drop in volts, such as 0.262, or ol.');
  if (value.value.kind === 'figure' && Math.abs(value.value.value) > 3)
    return fail(`Expected a drop from −3 to 3 V; got ${value.value.value}. Millivolts are typed as 262m.`);
  const port = named?.id ?? board.ports[0].id;
  return reading(board, { kind: 'pin', port, pin: contact.toUpperCase() }, value.value);
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
  const value = parseValue(rest);
  if (!value.ok) return value;
  if (kind === 'volt') {
    const rail = railOfNet(board, place.net);
    if (!rail) return fail(`${place.name} is on ${place.net}, which is not a rail: expected ohms or a drop there.`);
    if (value.value.kind !== 'figure') return fail(`Expected volts, such as 3.31; got "${rest.join(' ')}".`);
    return reading(board, { kind: 'volts', rail: rail.id }, value.value, `${place.name}, voltage of ${rail.id}`);
  }
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

type Unit = 'ohm' | 'volt' | 'drop';
const UNITS: Record<string, Unit> = {
  ohm: 'ohm',
  ohms: 'ohm',
  ω: 'ohm',
  kohm: 'ohm',
  mohm: 'ohm',
  v: 'volt',
  volt: 'volt',
  volts: 'volt',
  drop: 'drop',
  diode: 'drop',
};

/** Takes the unit out, wherever it stands: as a word of its own, or set to the figure. */
function takeUnit(words: string[]): { rest: string[]; unit?: Unit } {
  let unit: Unit | undefined;
  const rest: string[] = [];
  for (const word of words) {
    const attached = /^(.*\d[km]?)(ohms?|ω|v)$/.exec(word);
    if (UNITS[word]) {
      unit = UNITS[word];
      if (word === 'kohm' && rest.length > 0) rest[rest.length - 1] += 'k';
      if (word === 'mohm' && rest.length > 0) rest[rest.length - 1] += 'M';
    } else if (attached) {
      unit ??= UNITS[attached[2]];
      rest.push(attached[1]);
    } else rest.push(word);
  }
  return { rest, unit };
}

function parseValue(words: string[]): Result<Value> {
  if (words.length === 0) return fail('Expected a value after the point: a number, ol, or beep.');
  if (words.length > 1) return fail(`Expected one value; got "${words.join(' ')}".`);
  const [word] = words;
  if (word === 'ol' || word === 'open' || word === 'o.l') return ok({ kind: 'open' });
  if (word === 'beep' || word === 'beeps') return ok({ kind: 'beep' });
  const figure = parseFigure(word);
  return figure.ok ? ok({ kind: 'figure', value: figure.value }) : figure;
}

function unknownPlace(board: Board, name: string): string {
  const upper = name.toUpperCase();
  const names = placeNames(board);
  const near = names.filter((n) => n.startsWith(upper.replace(/\d+$/, '')) || distance(n, upper) <= 1).slice(0, 4);
  const hint = near.length > 0 ? ` Near it: ${near.join(', ')}.` : '';
  return `Expected a test point, part or net of this board; got "${name}".${hint}`;
}

/** All names that can begin a reading. */
export function placeNames(board: Board): string[] {
  return [...board.points.map((p) => p.id), ...board.parts.map((p) => p.ref), ...Object.keys(board.nets)];
}

/** Levenshtein distance, for "near it". */
function distance(a: string, b: string): number {
  let row = Array.from({ length: b.length + 1 }, (_, j) => j);
  for (let i = 1; i <= a.length; i++) {
    const next = [i];
    for (let j = 1; j <= b.length; j++) {
      next.push(Math.min(row[j] + 1, next[j - 1] + 1, row[j - 1] + (a[i - 1] === b[j - 1] ? 0 : 1)));
    }
    row = next;
  }
  return row[b.length];
}
