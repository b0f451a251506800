import { z } from 'zod';
import { groundNet, handiestPlace, netNamed, partByRef, shieldOver, type Board } from '../../board';
import { defineCommand, oneOf } from '../../command-line';
import { fail, ok } from '../../result';
import type { CircuitModel } from '../circuit-model';
import type { Effect, Fault } from '../faults';
import { choiceChances } from '../prediction';
import {
  defineMeasurement,
  type MeasurementEntry,
  type MeasurementLineContext,
  type ProposalContext,
} from './definition';
import { bad, plain } from './interpretation';
import { inSmallLetters } from './line-value';
import { nameSchema, unknownNet } from './naming';
import { choiceScale } from './scale';

const schema = z.object({ kind: z.literal('warmSpot'), net: nameSchema });
export type WarmSpotMeasurement = Readonly<z.infer<typeof schema>>;

/** Nothing gets warm, or what gets warm is no part on the net: a trace, a screw. */
const NOTHING = 'none';
const ELSEWHERE = 'elsewhere';

/**
 * What is seen, by what is there. That the part which holds the short takes most of the power, and so is warmest, is common
 * practice without a published source; the shares are engineering estimates.
 */
const SEEN = {
  /** The part that holds the short is the warmest; nothing is seen to warm. What is left goes to the others. */
  short: { holder: 0.85, none: 0.05 },
  /** Without a short the supply finds no load that takes its current. */
  sound: { none: 0.9 },
};

/** Below this a net takes the limited current as a short does, ohm. Engineering estimate. */
const SHORTED_BELOW_OHM = 30;
/** What joins nets so well that current goes on through it, ohm. Common practice: fuses, coils, filter lines. */
const JOINED_BELOW_OHM = 1;

/**
 * A limited current goes into a shorted net, and one looks for the part that gets warm: with a camera, alcohol that dries,
 * or freezing mist that melts. It tells parts on one net apart, which no resistance does. Common practice, no published source.
 */
export const warmSpot = defineMeasurement<WarmSpotMeasurement>({
  kind: 'warmSpot',
  schema,
  label: 'warm spot, a limited current put in',
  id: (m) => `warm:${m.net}`,
  // Only a short makes it worth the supply.
  offered: () => [],
  proposed: likelyShortedNets,
  misfit: (board, m) =>
    unknownNet(board, m.net) ??
    (m.net === groundNet(board) ? 'Expected a net to put the current into; got ground.' : undefined),
  title: (board, m, near) =>
    `Limited current into ${m.net} at ${handiestPlace(board, m.net, near)?.name ?? m.net}: what gets warm?`,
  name: (_board, m) => `${m.net} warm spot`,
  place: (board, m, near) => handiestPlace(board, m.net, near),
  access: () => 'out',
  // Leads on, limit set, spray or camera, a look. Engineering estimate.
  minutes: () => 4,
  shield(board, m) {
    const place = handiestPlace(board, m.net);
    return place && shieldOver(board, place);
  },
  power: (m) => ({ kind: 'injected', net: m.net }),
  caution:
    'Pack out. Limit first, then connect: begin at 1 V and 0.5 A, never above what the rail is made for. Alcohol and ' +
    'freezing mist burn: none near hot air, none on a hot board, extraction on; the part may burn a finger.',
  // Engineering estimate: flux residue and a warm plate mislead the eye.
  errorRate: 0.05,
  seesSwaps: false,
  outside: false,
  scale: choiceScale({ [NOTHING]: 'nothing gets warm', [ELSEWHERE]: 'no part on it gets warm' }),
  choices: (board, m) => choicesOn(board, m.net),
  predict: (model, m, fault, absent) => ({ kind: 'choice', chance: chances(model, m.net, fault, absent) }),
  // What touches the nets that are joined to this one, by the part that the current flows through.
  partition(partitioner, m) {
    const joined = joinedNets(partitioner.model, m.net, partitioner.absent);
    return partitioner.namedEffects((e) => pathName(joined, e));
  },
  interpret(_context, _m, value) {
    if (value.kind !== 'choice') return plain();
    if (value.choice === NOTHING) return plain('no part takes the current: a short is unlikely here');
    if (value.choice === ELSEWHERE) return bad('the current goes through no part: look at traces, joints and screws');
    return bad(`${value.choice} takes the current: it holds the short`);
  },
  stem: (_board, m) => `warm ${m.net.toLowerCase()} `,
  commands: [
    defineCommand<MeasurementLineContext, MeasurementEntry>({
      name: 'warm',
      usage: [
        { example: 'warm vsys c14', help: 'a limited current into a net: the part that gets warm, none, or elsewhere' },
      ],
      parse({ board }, { args: [word = '', answer, ...more] }) {
        const net = netNamed(board, word);
        if (net === undefined || net === groundNet(board)) return fail(`Expected a net of this board; got "${word}".`);
        if (more.length > 0) return fail(`Expected one part, none or elsewhere; got "${[answer, ...more].join(' ')}".`);
        const choice = oneOf(choicesOn(board, net), answer, `for what gets warm on ${net}`);
        if (!choice.ok) return choice;
        return ok({ measurement: { kind: 'warmSpot', net }, value: { kind: 'choice', choice: choice.value } });
      },
      complete({ board }, words) {
        if (words.length === 2) return inSmallLetters(Object.keys(board.nets));
        return words.length === 3 ? inSmallLetters(choicesOn(board, netNamed(board, words[1] ?? '') ?? '')) : [];
      },
    }),
  ],
});

/** Parts that hang on what is joined to a net, and what is no part of it. */
function choicesOn(board: Board, net: string): string[] {
  const joined = joinedOnSound(board, net);
  const parts = board.parts.filter((p) => Object.values(p.pins).some((n) => joined.has(n))).map((p) => p.ref);
  return [...parts, ELSEWHERE, NOTHING];
}

/** What is joined to a net on the board as it was made, once for each net. */
const joinedCache = new WeakMap<Board, Map<string, ReadonlySet<string>>>();

function joinedOnSound(board: Board, net: string): ReadonlySet<string> {
  let nets = joinedCache.get(board);
  if (!nets) joinedCache.set(board, (nets = new Map<string, ReadonlySet<string>>()));
  let joined = nets.get(net);
  if (!joined) nets.set(net, (joined = followJoins(board, net, new Set())));
  return joined;
}

/** Through fuses, coils and filter lines the current goes on; where such a part is off it does not. */
function followJoins(board: Board, from: string, absent: ReadonlySet<string>): ReadonlySet<string> {
  const ground = groundNet(board);
  const found = new Set([from]);
  const queue = [from];
  for (let net = queue.pop(); net !== undefined; net = queue.pop()) {
    for (const part of board.parts) {
      if (absent.has(part.ref)) continue;
      for (const [a, b] of conductingPairs(part)) {
        const next = a === net ? b : b === net ? a : undefined;
        if (next === undefined || next === ground || found.has(next)) continue;
        found.add(next);
        queue.push(next);
      }
    }
  }
  return found;
}

function conductingPairs({ kind, pins, ohm }: Board['parts'][number]): [string, string][] {
  if (kind === 'lineFilter')
    return [
      [pins['1'], pins['2']],
      [pins['3'], pins['4']],
    ];
  const passes = kind === 'fuse' || kind === 'coil' || (kind === 'resistor' && (ohm ?? Infinity) < JOINED_BELOW_OHM);
  return passes ? [[pins['1'], pins['2']]] : [];
}

const joinedNets = (model: CircuitModel, net: string, absent: ReadonlySet<string>): ReadonlySet<string> =>
  absent.size === 0 ? joinedOnSound(model.board, net) : followJoins(model.board, net, absent);

/** What a fault changes for a current into these nets, by name: a way to ground or beside them, or a way that is cut. */
function pathName(joined: ReadonlySet<string>, e: Effect): string | undefined {
  if (e.kind === 'shunt') return joined.has(e.net) ? `${e.at} ${e.net} ${e.ohm}` : undefined;
  if (e.kind === 'bridge') return joined.has(e.netA) !== joined.has(e.netB) ? `${e.at} ${e.netA} ${e.netB}` : undefined;
  // What is open on the way keeps the current off what lies behind; a load that is missing does not.
  return e.kind === 'open' && !e.element.includes('~') ? `open ${e.element}` : undefined;
}

function chances(
  model: CircuitModel,
  net: string,
  fault: Fault,
  absent: ReadonlySet<string>,
): Readonly<Record<string, number>> {
  const { board } = model;
  const choices = choicesOn(board, net);
  const joined = joinedNets(model, net, absent);
  const own = fault.effects.filter((e) => pathName(joined, e) !== undefined);
  const ohm = model.resistanceOhm(net, groundNet(board), { ...fault, effects: own }, absent);
  if (ohm >= SHORTED_BELOW_OHM || board.nets[net].lowByNature)
    return choiceChances(choices, { [NOTHING]: SEEN.sound.none });
  const held = own.flatMap((e) => (isShort(e) ? [e.at] : []));
  const warm = [...new Set(held)].map((at) => (partByRef(board, at) && choices.includes(at) ? at : ELSEWHERE));
  // A net that reads low without a short of its own: the current goes on through no part of it.
  const seen = warm.length === 0 ? [ELSEWHERE] : warm;
  const known: Record<string, number> = { [NOTHING]: SEEN.short.none };
  for (const at of seen) known[at] = (known[at] ?? 0) + SEEN.short.holder / seen.length;
  return choiceChances(choices, known);
}

const isShort = (e: Effect): e is Extract<Effect, { kind: 'shunt' | 'bridge' }> =>
  e.kind === 'shunt' || e.kind === 'bridge';

/** The supply goes only into a net that is shorted as likely as not: before that a resistance is asked first. */
const PROPOSED_FROM = 0.5;
/** Only the likeliest nets are worth the supply. */
const MOST_NETS = 3;

function likelyShortedNets({ board, likely, absent, replaced }: ProposalContext): WarmSpotMeasurement[] {
  const shares = new Map<string, number>();
  for (const { fault, p } of likely) {
    if (absent.has(fault.ref) || replaced.has(fault.ref)) continue;
    const nets = new Set(fault.effects.flatMap((e) => (e.kind === 'shunt' ? [e.net] : [])));
    for (const net of nets) shares.set(net, (shares.get(net) ?? 0) + p);
  }
  return [...shares]
    .filter(([net, p]) => p >= PROPOSED_FROM && !board.nets[net].lowByNature)
    .sort((a, b) => b[1] - a[1])
    .slice(0, MOST_NETS)
    .map(([net]) => ({ kind: 'warmSpot', net }));
}
