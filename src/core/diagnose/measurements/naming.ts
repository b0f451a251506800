import type { NetName, PartRef } from '../../identities';
import { z } from 'zod';
import { partByRef, shieldOver, type Board, type ProbePlace, type Shield } from '../../board';

/** Names of parts, nets, rails, ports and functions in stored measurements. */
export const nameSchema = z.string().min(1).max(24);
export const plugSideSchema = z.enum(['A', 'B']);

/** A port is named only where there are several. */
export const portPrefix = (board: Board, port: string): string => (board.ports.length > 1 ? `${port}, ` : '');
export const portStem = (board: Board, port: string): string =>
  board.ports.length > 1 ? `${port.toLowerCase()} ` : '';

export function partPlace(board: Board, ref: PartRef): ProbePlace | undefined {
  const part = partByRef(board, ref);
  return part && { name: ref, net: '', xMm: part.xMm, yMm: part.yMm, side: part.side };
}

export const shieldOverPart = (board: Board, ref: PartRef): Shield | undefined => {
  const part = partByRef(board, ref);
  return part && shieldOver(board, part);
};

/** The net at a joint of a part, or what is known of it otherwise. */
export const netAt = (board: Board, ref: PartRef, pin: string): string =>
  partByRef(board, ref)?.pins[pin] ?? 'not joined';

export const unknownPart = (board: Board, ref: PartRef): string | undefined =>
  partByRef(board, ref) ? undefined : `Expected a part of this board; got "${ref}".`;

export const unknownNet = (board: Board, net: NetName): string | undefined =>
  board.nets[net] ? undefined : `Expected a net of this board; got "${net}".`;

export const unknownPort = (board: Board, port: string): string | undefined =>
  board.ports.some((p) => p.id === port)
    ? undefined
    : `Expected one of the ports ${board.ports.map((p) => p.id).join(', ')}; got "${port}".`;

export const noShield = (): undefined => undefined;
