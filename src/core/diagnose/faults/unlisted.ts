import { groundNet, type Board } from '../../board';
import type { NetName } from '../../identities';
import type { Fault } from './fault';

/** What suspects that no list holds stand under. */
export const UNLISTED = 'unlisted';

/** Share of boards whose fault no list holds: at a net that is drawn, and at something that is not. Engineering estimates. */
export const UNLISTED_SHARE = { local: 0.04, global: 0.01 };
/** The same on a sketch, where not every part is drawn. Engineering estimates. */
const UNDRAWN_SHARE = { local: 0.15, global: 0.04 };
/** And where nobody has said which circuit it is. Engineering estimates. */
const UNKNOWN_SHARE = { local: 0.2, global: 0.15 };

const unlistedShare = ({ assumed = [] }: Board): typeof UNLISTED_SHARE =>
  assumed.includes('circuit') ? UNKNOWN_SHARE : assumed.includes('parts') ? UNDRAWN_SHARE : UNLISTED_SHARE;

/**
 * Hypotheses for what nobody listed: something at each net, shared out by the pads on it, and something that is not drawn.
 * Their weights are shares of all boards; what the listed faults keep is the rest.
 * @param nets those that count; all of them where it is left out.
 */
export function unlistedFaults(board: Board, nets?: ReadonlySet<NetName>): Fault[] {
  const ground = groundNet(board);
  const pads = new Map<string, number>();
  for (const part of board.parts)
    for (const net of Object.values(part.pins))
      if (net !== ground && (!nets || nets.has(net))) pads.set(net, (pads.get(net) ?? 0) + 1);
  const share = unlistedShare(board);
  const all = [...pads.values()].reduce((sum, n) => sum + n, 0);
  const unlisted = (at: string | null, label: string, weight: number): Fault => ({
    id: `${UNLISTED}/${at ?? ''}`,
    ref: UNLISTED,
    label,
    effects: [],
    weight,
    mendedBy: { kind: 'unlisted', net: at },
    unlistedAt: at,
  });
  return [
    ...[...pads].map(([net, n]) => unlisted(net, `Something unlisted at ${net}`, (share.local * n) / all)),
    unlisted(null, 'Something that is not drawn', share.global),
  ];
}
