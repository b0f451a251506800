import { partByRef, type Board } from '../../board';
import { UPPER_BOARD, type HeatPlan } from '../../heat';
import { clearedTarget, checkReading } from '../../diagnose';
import type { EventBody, JobEvent } from '../log';

/** What an event names that its board does not have, in a sentence; nothing where the board has it all. */
export function unknownOnBoard(board: Board, body: EventBody): string | undefined {
  switch (body.kind) {
    case 'reading': {
      const checked = checkReading(board, body);
      return checked.ok ? undefined : checked.problems[0].message;
    }
    case 'trace':
    case 'capture':
      return unknownPort(board, body.port);
    case 'partOff':
    case 'partOn':
    case 'lifted':
    case 'site':
    case 'flatness':
    case 'inspection':
    case 'padLook':
    case 'route':
    case 'imageWritten':
      return partByRef(board, body.ref) ? undefined : `Expected a part of this board; got "${body.ref}".`;
    case 'heatPlan':
      return unknownInPlan(board, body.plan);
    case 'shield':
      return unknownShield(board, body.id);
    case 'mended':
      return isMendable(clearedTarget(board, body.what))
        ? undefined
        : `Expected a rail or a screw of this board after "mended"; got "${body.what}".`;
    case 'story':
    case 'access':
    case 'pack':
    case 'decision':
    case 'run':
    case 'image':
    case 'picture':
    case 'device':
    case 'note':
    case 'promise':
    case 'delivery':
    case 'quote':
    case 'soak':
    case 'close':
    case 'reopen':
    case 'undo':
      return undefined;
  }
}

/** The upper board of a stack is no part of the file. */
function unknownInPlan(board: Board, { partRef, covers }: HeatPlan): string | undefined {
  const named = [...(partRef === UPPER_BOARD ? [] : [partRef]), ...covers];
  const unknown = named.find((ref) => !partByRef(board, ref));
  return unknown && `Expected a plan for parts of this board; got "${unknown}".`;
}

const unknownPort = (board: Board, port: string): string | undefined =>
  board.ports.some((p) => p.id === port)
    ? undefined
    : `Expected one of the ports ${board.ports.map((p) => p.id).join(', ')}; got "${port}".`;

/** Damage of the board, joints, contacts, software: parts and images have events of their own. */
const isMendable = (target: ReturnType<typeof clearedTarget>): boolean =>
  target !== undefined && target.kind !== 'part' && target.kind !== 'image';

function unknownShield(board: Board, id: string): string | undefined {
  if (board.shields.some((s) => s.id === id)) return undefined;
  const known = board.shields.map((s) => s.id).join(', ') || 'none, the board file has no shield';
  return `Expected a shield of this board after "shield": ${known}; got "${id}".`;
}

/**
 * A record as a board can show it: entries that name what the board does not have stand in it as ones that cannot be read, with
 * the sentence, and nothing is computed from them. The same array where every entry fits.
 */
export function fitToBoard(board: Board, events: readonly JobEvent[]): readonly JobEvent[] {
  const unknown = events.map(({ body }) => (body.kind === 'unreadable' ? undefined : unknownOnBoard(board, body)));
  if (unknown.every((u) => u === undefined)) return events;
  return events.map((event, i): JobEvent =>
    unknown[i] === undefined
      ? event
      : {
          ...event,
          body: { kind: 'unreadable', problem: `Entry ${event.seq} does not fit the board’s file: ${unknown[i]}` },
        },
  );
}
