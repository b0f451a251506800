import type { PartRef } from '../../identities';
import { partNamed, type Board } from '../../board';
import { fail, ok, type Result } from '../../result';
import { parseFigure } from '../../units';
import type { Value } from '../value';

/** Reading the values of typed measurement lines. */

/** What a verdict is called. */
export const GOOD_WORDS: ReadonlySet<string> = new Set(['good', 'ok', 'pass', 'works', 'fine', 'yes']);
export const BAD_WORDS: ReadonlySet<string> = new Set(['bad', 'fail', 'fails', 'dead', 'damaged', 'no']);

export function verdictOf(word: string | undefined): Result<Value> {
  if (word !== undefined && GOOD_WORDS.has(word)) return ok({ kind: 'pass' });
  if (word !== undefined && BAD_WORDS.has(word)) return ok({ kind: 'fail' });
  return fail(`Expected good or bad; got "${word ?? ''}".`);
}

/** A drop in volts, or open. */
export function parseDrop(words: readonly string[], where: string): Result<Value> {
  const { rest: figures, unit } = takeUnit(words);
  if (unit === 'ohm') return fail(`Expected a diode-mode drop at ${where}; got ohms.`);
  const value = parseValue(figures);
  if (!value.ok) return value;
  if (value.value.kind === 'beep') return fail('Expected a drop in volts, such as 0.262, or ol.');
  if (value.value.kind === 'figure' && Math.abs(value.value.value) > MOST_DROP_V)
    return fail(`Expected a drop from −3 to 3 V; got ${value.value.value}. Millivolts are typed as 262m.`);
  return value;
}

/** A meter in diode mode drives no more than this, V. Common practice. */
const MOST_DROP_V = 3;

export type Unit = 'ohm' | 'volt' | 'drop';
const UNITS: Readonly<Record<string, Unit>> = {
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
export function takeUnit(words: readonly string[]): { rest: string[]; unit?: Unit } {
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

export function parseValue(words: readonly string[]): Result<Value> {
  if (words.length === 0) return fail('Expected a value after the point: a number, ol, or beep.');
  if (words.length > 1) return fail(`Expected one value; got "${words.join(' ')}".`);
  const [word] = words;
  if (word === 'ol' || word === 'open' || word === 'o.l') return ok({ kind: 'open' });
  if (word === 'beep' || word === 'beeps') return ok({ kind: 'beep' });
  const figure = parseFigure(word);
  return figure.ok ? ok({ kind: 'figure', value: figure.value }) : figure;
}

/** Volts, with what else was seen of them: `14.9`, `14.9 swings`, `14.9 ripple 120m`. */
export function parseVolts([first, ...notes]: readonly string[]): Result<Value> {
  const volts = parseValue(first === undefined ? [] : [first]);
  if (!volts.ok) return volts;
  if (volts.value.kind !== 'figure') return fail(`Expected volts, such as 3.31; got "${first}".`);
  const swings = notes.includes('swings');
  const rest = notes.filter((word) => word !== 'swings');
  if (rest.length === 0) return ok(swings ? { ...volts.value, swings } : volts.value);
  const [word, figure, ...more] = rest;
  const ripple = parseFigure((figure ?? '').replace(/v$/, ''));
  if (word !== 'ripple' || more.length > 0)
    return fail(`Expected "ripple 120m" or "swings" after the volts; got "${notes.join(' ')}".`);
  if (!ripple.ok || ripple.value < 0 || ripple.value > 100)
    return fail(`Expected the ripple from peak to peak, such as 120m; got "${figure ?? ''}".`);
  return ok({ ...volts.value, ...(swings && { swings }), ripplePpV: ripple.value });
}

/** The port named first, or the only one, and what comes after it. */
export function takePort(
  board: Board,
  words: readonly string[],
  after: string,
): Result<{ port: string; rest: readonly string[] }> {
  const ports = board.ports.map((p) => p.id);
  const named = ports.find((id) => id.toLowerCase() === words[0]);
  if (!named && ports.length > 1)
    return fail(`Expected one of the ports ${ports.join(', ')} after "${after}"; got "${words[0] ?? ''}".`);
  return ok({ port: named ?? ports[0], rest: named ? words.slice(1) : words });
}

/** The plug's way, as typed. */
export function takeSide(word: string | undefined): Result<'A' | 'B'> {
  if (word === 'a') return ok('A');
  if (word === 'b') return ok('B');
  return fail(`Expected the plug’s way, a or b; got "${word ?? ''}".`);
}

/** Completions. */
export const inSmallLetters = (names: readonly string[]): string[] => names.map((n) => n.toLowerCase());
export const partNames = (board: Board): string[] => inSmallLetters(board.parts.map((p) => p.ref));
export const portNames = (board: Board): string[] => inSmallLetters(board.ports.map((p) => p.id));
/** Ports where there are several: one is not named. */
export const severalPorts = (board: Board): string[] => (board.ports.length > 1 ? portNames(board) : []);
export const pinNames = (board: Board, ref: PartRef): string[] =>
  inSmallLetters(Object.keys(partNamed(board, ref)?.pins ?? {}));
