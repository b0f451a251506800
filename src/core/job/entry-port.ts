import type { Board } from '../board';
import { LOOK_FINDINGS, OUTSIDE_THINGS, type LookFinding, type Shape, type Value } from '../diagnose';
import { fail, ok, type Result } from '../result';
import { formatAmp, formatVolt, parseFigure } from '../units';
import type { Stop } from '../usb';
import { BAD, GOOD, parseDrop, reading, verdictOf } from './entry-value';
import type { Entry } from './entry-work';
import type { JobState } from './fold';
import { refusedPower } from './gate';

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

export function parseUsb(board: Board, state: JobState, words: string[]): Result<Entry> {
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

export function parseLook(board: Board, words: string[]): Result<Entry> {
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

export function parseTalk(board: Board, state: JobState, words: string[]): Result<Entry> {
  const taken = takePort(board, state, words, 'talk');
  if (!taken.ok) return taken;
  const [side, name] = taken.value.rest;
  if (side !== 'a' && side !== 'b') return fail(`Expected the plug’s way, a or b; got "${side ?? ''}".`);
  const stop = STOP_NAMES[name ?? ''];
  if (!stop) return fail(`Expected where it stopped: ${Object.keys(STOP_NAMES).join(', ')}; got "${name ?? ''}".`);
  const measurement = { kind: 'talk', port: taken.value.port, side: side === 'a' ? 'A' : 'B' } as const;
  return reading(board, measurement, { kind: 'talk', stop });
}

export function parseTester(board: Board, state: JobState, words: string[]): Result<Entry> {
  const taken = takePort(board, state, words, 'tester');
  if (!taken.ok) return taken;
  const value = verdictOf(taken.value.rest[0]);
  return value.ok ? reading(board, { kind: 'tester', port: taken.value.port }, value.value) : value;
}

export function parseSwap(board: Board, state: JobState, words: string[]): Result<Entry> {
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
export function parseContact(board: Board, words: string[]): Result<Entry> | undefined {
  const named = board.ports.find((p) => p.id.toLowerCase() === words[0]);
  const [contact, ...rest] = named ? words.slice(1) : words;
  if (!CONTACT.test(contact ?? '')) return undefined;
  if (!named && board.ports.length > 1)
    return fail(`Expected the port before the contact, such as: j2 ${contact} 0.262; got "${words.join(' ')}".`);
  const value = parseDrop(rest, `contact ${contact.toUpperCase()}`);
  if (!value.ok) return value;
  const port = named?.id ?? board.ports[0].id;
  return reading(board, { kind: 'pin', port, pin: contact.toUpperCase() }, value.value);
}
