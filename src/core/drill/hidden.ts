import type { NetName, PartRef } from '../identities';
import { groundNet, type Board } from '../board';
import { OUTSIDE, pickWeighted, updateBelief, type Fault, type Predictor } from '../diagnose';
import type { Random } from '../math';

/** What is wrong with a board that nobody sees. */
export interface Hidden {
  readonly faults: readonly Fault[];
  /** True where one of them is in no list. */
  readonly outside: boolean;
}

/** Shares of hidden boards. */
const SHARE = { outside: 0.1, two: 0.2, three: 0.1 };

/** Draws boards: listed faults by their odds, one to three at once, and now and then one that no list holds. */
export function hiddenBoards(predictor: Predictor): (random: Random) => Hidden {
  const drawn = faultDraws(predictor);
  return (random) => {
    const isOutside = random() < SHARE.outside;
    const company = random();
    const count = company < SHARE.three ? 3 : company < SHARE.three + SHARE.two ? 2 : 1;
    return isOutside
      ? { faults: [drawn.unlisted(random)], outside: true }
      : { faults: drawn.listed(count, random), outside: false };
  };
}

/** Draws faults of a board: so many listed ones on different parts by their odds, or one that no list holds. */
export function faultDraws(predictor: Predictor): {
  readonly listed: (count: number, random: Random) => readonly Fault[];
  readonly unlisted: (random: Random) => Fault;
} {
  const { faults, marginal } = updateBelief(predictor, [], [], { doubleShare: 0, unlisted: 0 });
  // A group of parts further off is nobody's fault in particular: nothing that could be mended.
  const isNamed = (f: Fault): boolean => f.unlistedAt === undefined && f.furtherOff === undefined && f.id !== OUTSIDE;
  const odds = faults.map((f, i) => (isNamed(f) ? marginal[i] : 0));
  const total = odds.reduce((sum, p) => sum + p, 0);
  const listed = odds.map((p) => p / total);
  return {
    unlisted: unlistedFaults(predictor.board),
    listed(count, random) {
      const found: Fault[] = [];
      while (found.length < count) {
        const fault = faults[pickWeighted(listed, random)];
        if (found.every((f) => f.ref !== fault.ref)) found.push(fault);
      }
      return found;
    },
  };
}

/** Faults as one: the union of what they do. */
export const together = (faults: readonly Fault[]): Fault => ({
  id: faults.map((f) => f.id).join('+') || 'sound',
  ref: '',
  label: '',
  weight: 0,
  effects: faults.flatMap((f) => f.effects),
  mendedBy: { kind: 'nothing' },
});

const logUniform = (low: number, high: number, random: Random): number => low * (high / low) ** random();
const pick = <T>(list: readonly T[], random: Random): T => list[Math.floor(random() * list.length)];

/** Faults that the catalogue does not hold as they are: values, places and habits of their own. */
function unlistedFaults(board: Board): (random: Random) => Fault {
  const ground = groundNet(board);
  const signals = Object.keys(board.nets).filter((net) => net !== ground && board.nets[net].role === 'signal');
  const kinds = (kind: Board['parts'][number]['kind']) => board.parts.filter((p) => p.kind === kind);
  const toGround = kinds('capacitor').filter((p) => Object.values(p.pins).includes(ground));
  const made = (id: string, ref: PartRef, effects: Fault['effects'], more: Partial<Fault> = {}): Fault => ({
    id: `hidden/${id}`,
    ref,
    label: id,
    weight: 0,
    effects,
    mendedBy: { kind: 'part', ref },
    ...more,
  });
  const usedBy = (net: NetName): string[] =>
    board.parts.filter((p) => Object.values(p.pins).includes(net) && Object.keys(p.pins).length > 2).map((p) => p.ref);
  const resistors = kinds('resistor');
  const drift = (random: Random): Fault => {
    const { ref } = pick(resistors, random);
    return made(`drift ${ref}`, ref, [{ kind: 'drift', element: ref, ref, factor: logUniform(0.02, 50, random) }]);
  };
  const ways: ((random: Random) => Fault)[] = [
    ...(resistors.length > 0 ? [drift] : []),
    (random) => {
      // Between two nets that share a chip, with what that does to the chip's work.
      const net = pick(signals, random);
      const chip = pick(usedBy(net), random) ?? board.ports[0].controller;
      const others = Object.values(board.parts.find((p) => p.ref === chip)!.pins).filter(
        (n) => n !== net && n !== ground,
      );
      const other = pick(others, random) ?? signals[0];
      const ohm = logUniform(5, 200, random);
      return made(`joined ${net} ${other}`, 'hidden', [{ kind: 'bridge', netA: net, netB: other, ohm, at: 'hidden' }]);
    },
    (random) => {
      const part = pick(toGround, random);
      const net = Object.values(part.pins).find((n) => n !== ground)!;
      const ohm = logUniform(60, 1500, random);
      return made(`leak ${part.ref}`, part.ref, [{ kind: 'shunt', net, ohm, at: part.ref }]);
    },
    (random) => {
      const part = pick(
        board.parts.filter((p) => Object.keys(p.pins).length >= 4 && p.kind !== 'connector'),
        random,
      );
      return made(`intermittent ${part.ref}`, part.ref, [{ kind: 'dead', ref: part.ref }], {
        seen: 0.3 + 0.5 * random(),
      });
    },
    (random) => {
      // A trace cracked in mid-net: a chip is cut off from one of its nets, and no joint of it shows.
      const part = pick(
        board.parts.filter((p) => Object.keys(p.loadsOhm).length > 0),
        random,
      );
      const net = pick(Object.keys(part.loadsOhm), random);
      // Where the net is a rail, a wire past its trace mends it.
      const rail = board.rails.find((r) => r.net === net)?.id;
      return made(
        `cracked ${part.ref} ${net}`,
        'hidden',
        [
          { kind: 'open', element: `${part.ref}~${net}`, ref: part.ref },
          { kind: 'dead', ref: part.ref },
        ],
        rail === undefined ? {} : { mendedBy: { kind: 'rail', rail } },
      );
    },
  ];
  return (random) => pick(ways, random)(random);
}
