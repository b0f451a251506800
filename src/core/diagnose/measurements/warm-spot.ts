import type { NetName, PartRef } from '../../identities';
import { z } from 'zod';
import { groundNet, handiestPlace, netNamed, partByRef, shieldOver, type Board } from '../../board';
import { defineCommand, oneOf } from '../../command-line';
import { fail, ok } from '../../result';
import type { CircuitModel } from '../circuit-model';
import type { Effect, Fault } from '../faults';
import { islandOf } from '../islands';
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
/** A short of less than this at a net that is joined to it is one, whatever lies between. */
const PLAINLY_SHORT_OHM = 10;
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
  touches: (_board, m) => [m.net],
  choices: (board, m) => choicesOn(board, m.net),
  predict(model, m, fault, absent) {
    const { choices, beyond } = toldBy(model, m.net);
    const answers = beyond > 0 ? { answers: choices.length + beyond } : {};
    return { kind: 'choice', chance: chances(model, m.net, fault, absent), ...answers };
  },
  // What touches the nets that are joined to this one, by the part that the current flows through.
  partition(partitioner, m) {
    const joined = islandOf(partitioner.board, m.net, partitioner.absent);
    return partitioner.namedEffects((e) => pathName(partitioner.board, joined, e));
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
function choicesOn(board: Board, net: NetName): string[] {
  const joined = islandOf(board, net);
  const parts = board.parts.filter((p) => Object.values(p.pins).some((n) => joined.has(n))).map((p) => p.ref);
  return [...parts, ELSEWHERE, NOTHING];
}

/** The answers that a model tells from one another, and how many parts stand behind "elsewhere" besides. */
interface Told {
  readonly choices: readonly string[];
  readonly beyond: number;
}
const kept = new WeakMap<CircuitModel, Map<NetName, Told>>();

function toldBy(model: CircuitModel, net: NetName): Told {
  let byNet = kept.get(model);
  if (!byNet) kept.set(model, (byNet = new Map<NetName, Told>()));
  let told = byNet.get(net);
  if (!told) {
    const all = choicesOn(model.board, net);
    const choices = all.filter((choice) => !partByRef(model.board, choice) || model.namesPart(choice));
    byNet.set(net, (told = { choices, beyond: all.length - choices.length }));
  }
  return told;
}

/** Chances of the answers: what is known, and the rest evenly over every part that could be named, near or not. */
function spread({ choices, beyond }: Told, known: Readonly<Record<string, number>>): Readonly<Record<string, number>> {
  const rest = 1 - Object.values(known).reduce((sum, p) => sum + p, 0);
  const far = (rest * beyond) / (choices.length + beyond);
  return choiceChances(choices, { ...known, [ELSEWHERE]: (known[ELSEWHERE] ?? 0) + far });
}

/** What a fault changes for a current into these nets, by name: a way to ground or beside them, or a way that is cut. */
function pathName(board: Board, joined: ReadonlySet<string>, e: Effect): string | undefined {
  if (e.kind === 'shunt') return joined.has(e.net) ? `${e.at} ${e.net} ${e.ohm}` : undefined;
  if (e.kind === 'bridge') return joined.has(e.netA) !== joined.has(e.netB) ? `${e.at} ${e.netA} ${e.netB}` : undefined;
  // What is open on the way keeps the current off what lies behind; a load that is missing does not.
  if (e.kind !== 'open' || e.element.includes('~')) return undefined;
  // Only a part that joins these nets can keep the current off what lies behind it.
  const joins = Object.values(partByRef(board, e.ref)?.pins ?? {}).filter((net) => joined.has(net));
  return new Set(joins).size > 1 ? `open ${e.element}` : undefined;
}

function chances(
  model: CircuitModel,
  net: NetName,
  fault: Fault,
  absent: ReadonlySet<PartRef>,
): Readonly<Record<string, number>> {
  const { board } = model;
  const told = toldBy(model, net);
  const joined = islandOf(board, net, absent);
  const own = fault.effects.filter((e) => pathName(board, joined, e) !== undefined);
  if (board.nets[net].lowByNature || !takesCurrent(model, net, { ...fault, effects: own }, absent))
    return spread(told, { [NOTHING]: SEEN.sound.none });
  const held = own.flatMap((e) => (isShort(e) ? [e.at] : []));
  const warm = [...new Set(held)].map((at) => (partByRef(board, at) && told.choices.includes(at) ? at : ELSEWHERE));
  // A net that reads low without a short of its own: the current goes on through no part of it.
  const seen = warm.length === 0 ? [ELSEWHERE] : warm;
  const known: Record<string, number> = { [NOTHING]: SEEN.short.none };
  for (const at of seen) known[at] = (known[at] ?? 0) + SEEN.short.holder / seen.length;
  return spread(told, known);
}

/** True where a net takes the limited current as a short does; the network is solved only where that is not plain. */
function takesCurrent(model: CircuitModel, net: NetName, fault: Fault, absent: ReadonlySet<PartRef>): boolean {
  const ground = groundNet(model.board);
  const shorts = fault.effects.filter(isShort);
  if (shorts.length === fault.effects.length) {
    if (shorts.some((e) => e.ohm < PLAINLY_SHORT_OHM)) return true;
    // At most everything in parallel.
    const healthy = model.networkWithout(absent).resistanceOhm(net, ground);
    const siemens = shorts.reduce((sum, e) => sum + 1 / e.ohm, 1 / healthy);
    if (1 / siemens >= SHORTED_BELOW_OHM) return false;
  }
  return model.resistanceOhm(net, ground, fault, absent) < SHORTED_BELOW_OHM;
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
