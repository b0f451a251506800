import type { NetName } from '../identities';
import { findPlace, groundNet, padsOf, railOfNet, type Board, type Pad, type Part } from '../board';

/** What a pad without copper means for the job. */
export type LiftedKind = 'noConnect' | 'ground' | 'doubled' | 'wire' | 'vital';

export interface LiftedPad {
  readonly pin: string;
  readonly net?: NetName;
  readonly kind: LiftedKind;
  /** What follows, in words. */
  readonly summary: string;
  /** Where a wire can be soldered on, and how far off it is, mm. */
  readonly wireTo?: { readonly name: string; readonly awayMm: number };
}

export interface LiftedVerdict {
  readonly pads: readonly LiftedPad[];
  readonly goesOn: boolean;
  /** The headline: whether the job can go on, and with what. */
  readonly headline: string;
}

/** A wire longer than this across a board is not trusted to hold. Engineering estimate. */
const LONGEST_WIRE_MM = 25;
/** With fewer ground joints left a part runs hot and its ground bounces. Engineering estimate. */
const LEAST_GROUND_SHARE = 0.5;

/** Tells for each lifted pad of a part what its net can do without. @param pins names of the part's pads. */
export function judgeLifted(board: Board, part: Part, pins: readonly string[]): LiftedVerdict {
  const pads = padsOf(board, part);
  const judged = pins.flatMap((pin) => {
    const pad = pads.find((p) => p.pin === pin);
    return pad ? [judgePad(board, part, pad, new Set(pins))] : [];
  });
  const stuck = judged.filter((p) => p.kind === 'vital');
  const wires = judged.filter((p) => p.kind === 'wire');
  return {
    pads: judged,
    goesOn: stuck.length === 0,
    headline:
      judged.length === 0
        ? 'No lifted pad'
        : stuck.length > 0
          ? `Cannot go on: ${stuck.map((p) => p.pin).join(', ')} ${stuck.length === 1 ? 'has' : 'have'} no other way to the net`
          : wires.length > 0
            ? `Goes on with ${wires.length === 1 ? 'a wire' : `${wires.length} wires`}: ${wires.map((p) => `${p.pin} to ${p.wireTo!.name}`).join(', ')}`
            : 'Goes on as it is',
  };
}

function judgePad(board: Board, part: Part, pad: Pad, lifted: ReadonlySet<string>): LiftedPad {
  const net = part.pins[pad.pin];
  const { pin } = pad;
  if (net === undefined)
    return { pin, kind: 'noConnect', summary: 'Not connected: nothing is lost but a little hold.' };
  const others = Object.entries(part.pins).filter(([p, n]) => n === net && p !== pin && !lifted.has(p));
  if (net === groundNet(board)) return groundPad(board, part, pad, net, others.length);
  if (others.length > 0) {
    const [twin] = others.map(([p]) => p);
    return {
      pin,
      net,
      kind: 'doubled',
      summary: `${net} has a second pad, ${twin}: it carries on, with less current to spare.`,
    };
  }
  const place = nearestElsewhere(board, part, pad, net);
  if (!place && usersOf(board, part, net).length === 0)
    return { pin, net, kind: 'noConnect', summary: `${net} goes nowhere else: nothing is lost.` };
  const loss = lossOf(board, part, net);
  if (place && place.awayMm <= LONGEST_WIRE_MM) {
    return {
      ...{ pin, net, kind: 'wire', wireTo: place },
      summary: `${loss}. A wire to ${place.name}, ${place.awayMm.toFixed(1)} mm off, brings it back.`,
    };
  }
  return { pin, net, kind: 'vital', summary: `${loss}, and no place on this side to bring it back from.` };
}

function groundPad(board: Board, part: Part, pad: Pad, net: NetName, left: number): LiftedPad {
  const { pin } = pad;
  const all = Object.values(part.pins).filter((n) => n === net).length;
  const isCentre = pin === 'EP';
  if (left >= LEAST_GROUND_SHARE * all && !isCentre) {
    return { pin, net, kind: 'ground', summary: `Ground, with ${left} other ground pads left: it goes on.` };
  }
  const place = nearestElsewhere(board, part, pad, net);
  if (isCentre && left > 0) {
    return {
      pin,
      net,
      kind: 'ground',
      summary: 'The centre pad carries heat away: the part works, and runs hotter under load.',
    };
  }
  return place
    ? {
        pin,
        net,
        kind: 'wire',
        wireTo: place,
        summary: `Too few ground joints are left: a short wire to ${place.name}.`,
      }
    : { pin, net, kind: 'vital', summary: 'Too few ground joints are left, and no ground near to reach.' };
}

const usersOf = (board: Board, part: Part, net: NetName): Part[] =>
  board.parts.filter((p) => p.ref !== part.ref && Object.values(p.pins).includes(net));

/** The nearest place on the part's own side where the net comes to the surface elsewhere. */
function nearestElsewhere(board: Board, part: Part, pad: Pad, net: NetName): LiftedPad['wireTo'] {
  const points = board.points.filter((p) => p.net === net && p.side === part.side).map((p) => p.id);
  const pins = usersOf(board, part, net)
    .filter((p) => p.side === part.side)
    .flatMap((p) => padsOf(board, p).flatMap((q) => (p.pins[q.pin] === net ? [`${p.ref}.${q.pin}`] : [])));
  const places = [...points, ...pins].flatMap((name) => {
    const place = findPlace(board, name);
    return place ? [{ name, awayMm: Math.hypot(place.xMm - pad.xMm, place.yMm - pad.yMm) }] : [];
  });
  return places.sort((a, b) => a.awayMm - b.awayMm)[0];
}

/** What is lost without the net: the rail it is, or the functions of the parts on it. */
function lossOf(board: Board, part: Part, net: NetName): string {
  const rail = railOfNet(board, net);
  if (rail) return `${net} is the rail ${rail.id}`;
  const beside = new Set(usersOf(board, part, net).map((p) => p.ref));
  const used = board.functions.filter((f) => f.parts.some((ref) => beside.has(ref))).map((f) => f.what);
  return used.length > 0
    ? `${net} is needed for ${used.slice(0, 2).join(' and ')}`
    : `${net} is not doubled on this part`;
}
