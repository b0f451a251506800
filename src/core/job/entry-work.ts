import { partByRef, type Board } from '../board';
import { fail, ok, type Result } from '../result';
import type { EventBody } from './events';
import type { JobState } from './fold';

/** What a typed line means, before Enter keeps it. */
export interface Entry {
  readonly body: EventBody;
  /** In words, for the echo beside the line. */
  readonly echo: string;
  /** The event it corrects, for lines that begin with `fix`. */
  readonly replaces?: number;
}

/** How far the device is open. */
export function access(level: 'open' | 'out' | 'closed'): Result<Entry> {
  const words = {
    open: 'The housing is open.',
    out: 'The board is out of its frame.',
    closed: 'The housing is closed.',
  };
  return ok({ body: { kind: 'access', access: level }, echo: words[level] });
}

export function parseOff(board: Board, state: JobState, words: string[]): Result<Entry> {
  const part = partByRef(board, (words[0] ?? '').toUpperCase());
  if (!part) return fail(`Expected a part of this board after "off"; got "${words[0] ?? ''}".`);
  if (state.absent.includes(part.ref)) return fail(`${part.ref} is off the board already.`);
  return ok({
    body: { kind: 'partOff', ref: part.ref },
    echo: `${part.ref} ${part.what} is off the board: measure again.`,
  });
}

export function parseOn(board: Board, state: JobState, words: string[]): Result<Entry> {
  const part = partByRef(board, (words[0] ?? '').toUpperCase());
  if (!part) return fail(`Expected a part of this board after "on"; got "${words[0] ?? ''}".`);
  if (!state.absent.includes(part.ref)) return fail(`${part.ref} is on the board; expected one that was taken off.`);
  const fresh = words[1] === undefined || words[1] === 'new';
  if (!fresh && words[1] !== 'same') return fail(`Expected new or same after ${part.ref}; got "${words[1]}".`);
  const echo = fresh ? `A new ${part.ref} is on.` : `The same ${part.ref} is back on.`;
  return ok({ body: { kind: 'partOn', ref: part.ref, fresh }, echo });
}

export function parseShield(board: Board, state: JobState, [name = '', way = '']: string[]): Result<Entry> {
  const shield = board.shields.find((s) => s.id === name.toUpperCase());
  if (!shield) {
    const known = board.shields.map((s) => s.id).join(', ') || 'none, the board file has no shield';
    return fail(`Expected a shield of this board after "shield": ${known}; got "${name}".`);
  }
  if (way !== 'off' && way !== 'on') return fail(`Expected off or on after ${shield.id}; got "${way}".`);
  if (state.bare.includes(shield.id) === (way === 'off')) return fail(`${shield.id} is ${way} already.`);
  return ok({ body: { kind: 'shield', id: shield.id, off: way === 'off' }, echo: `Shield ${shield.id} is ${way}.` });
}

/** Damage of the board itself: a trace to a rail, or where a screw went through. */
export function parseMended(board: Board, state: JobState, words: string[]): Result<Entry> {
  const name = (words[0] ?? '').toUpperCase();
  const rail = board.rails.find((r) => r.id === name);
  if (!rail && !board.screws.some((s) => s.id === name))
    return fail(`Expected a rail or a screw of this board after "mended"; got "${words[0] ?? ''}".`);
  if (state.replaced.includes(name)) return fail(`${name} is mended already.`);
  const echo = rail ? `A wire is laid past the trace to ${name}.` : `The board is mended at screw ${name}.`;
  return ok({ body: { kind: 'mended', what: name }, echo });
}
