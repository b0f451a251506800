import type { NetName } from '../../identities';
import type { ForeignBoard, ForeignPart } from '../foreign';

/** Who is on which net, both ways. */
export interface Wiring {
  readonly partsOn: (net: NetName) => readonly ForeignPart[];
  readonly netsOf: (part: ForeignPart) => readonly string[];
  readonly nets: readonly NetName[];
}

export function wiringOf(board: ForeignBoard): Wiring {
  const parts = new Map<string, Set<ForeignPart>>();
  const nets = new Map<ForeignPart, readonly string[]>();
  for (const part of board.parts) {
    const own = [...new Set(part.pads.flatMap((p) => (p.net === undefined ? [] : [p.net])))];
    nets.set(part, own);
    for (const net of own) {
      const set = parts.get(net);
      if (set) set.add(part);
      else parts.set(net, new Set([part]));
    }
  }
  const lists = new Map([...parts].map(([net, set]) => [net, [...set]]));
  return { partsOn: (net) => lists.get(net) ?? [], netsOf: (part) => nets.get(part) ?? [], nets: [...lists.keys()] };
}
