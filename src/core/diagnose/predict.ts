import {
  behindNet,
  groundNet,
  partByRef,
  portPin,
  type Behind,
  type Board,
  type BoardFunction,
  type PlugSide,
  type Port,
} from '../board';
import { singleFaults } from './catalogue';
import { isGone, type Effect, type Fault, type OutsideThing } from './faults';
import { throughNets, type Measurement } from './measurement';
import { ResistanceNetwork, type ConductanceChange } from './network';
import { STOPS, type Stop } from '../usb';
import { meterReading } from './meter';
import type { Alternative, Prediction, Shape } from './prediction';
import { solvePower, type MeterCase, type PowerSolution, type SupplyState } from './power';

/** Hand meters read no lower than their leads and show OL from here up, as log10 ohm. Common practice. */
const LEADS_OHM = 0.1;
export const OPEN_LOG_OHM = 6;

/** Spread of a shorted part's resistance: 0.5–5 Ω covers about 95 %, as log10. */
const SHORT_SPREAD = 0.25;
/** Spread of a sound network against its board file, as log10. Engineering estimate. */
const HEALTHY_SPREAD = 0.1;
/** Diode mode: normal spread, what a short to ground reads, and what "open" is taken as. Common practice. */
const DROP_SPREAD_V = 0.012;
const DROP_SHORT_V = 0.02;
/** A leaking array pulls a drop to about this share of normal. Engineering estimate. */
const LEAK_SHARE = 0.55;
/** Below this a diode test shows a short, ohm. Common practice. */
export const DROP_SHORT_BELOW_OHM = 30;
export const DROP_OPEN_V = 2;

const one = (mean: number, sd: number, weight = 1): Alternative => ({ means: [mean], sds: [sd], weight });
const values = (...alternatives: Alternative[]): Prediction => ({ kind: 'values', alternatives });

/** log10 of what the meter shows for a true resistance. */
export const shownLogOhm = (ohm: number): number => Math.min(OPEN_LOG_OHM, Math.log10(Math.max(0, ohm) + LEADS_OHM));

/** Predicts every reading of a board for any set of effects; keeps one network per set of absent parts. */
export class Predictor {
  private readonly networks = new Map<string, ResistanceNetwork>();
  private readonly power = new Map<string, PowerSolution>();
  private readonly signals = new Map<string, ReadonlySet<string>>();
  /** What nets reach on the sound board. */
  private readonly soundBehind = new Map<string, Behind>();

  /** Every single fault of the board. */
  readonly faults: readonly Fault[];

  private static readonly kept = new WeakMap<Board, Predictor>();

  /** The predictor of a board, made once: its networks and predictions serve every job on that board. */
  static of(board: Board): Predictor {
    let predictor = Predictor.kept.get(board);
    if (!predictor) Predictor.kept.set(board, (predictor = new Predictor(board)));
    return predictor;
  }

  constructor(readonly board: Board) {
    this.faults = singleFaults(board);
  }

  /** The resistances of the board without some parts; kept. */
  networkWithout(absent: ReadonlySet<string>): ResistanceNetwork {
    const key = [...absent].sort().join(' ');
    let network = this.networks.get(key);
    if (!network) this.networks.set(key, (network = ResistanceNetwork.ofBoard(this.board, absent)));
    return network;
  }

  private solve(fault: Fault, absent: ReadonlySet<string>, supply: SupplyState): PowerSolution {
    const key = `${fault.id}|${[...absent].sort().join(' ')}|${supply.port}${supply.side}${supply.pack}`;
    let solution = this.power.get(key);
    if (!solution) this.power.set(key, (solution = solvePower(this.board, fault.effects, absent, supply)));
    return solution;
  }

  /**
   * @param fault the fault that is assumed; its effects are ignored when its part is off or has been replaced.
   * @param absent parts that are off the board.
   * @param replaced parts that were replaced by good ones, or single fault ids that were mended (a rewritten image).
   */
  predict(m: Measurement, fault: Fault, absent: ReadonlySet<string>, replaced: ReadonlySet<string>): Prediction {
    if (m.kind === 'lift')
      return this.predict({ kind: 'ohm', net: m.net }, fault, new Set([...absent, m.ref]), replaced);
    const active = isGone(fault, absent, replaced) ? { ...fault, id: 'sound', effects: [] } : fault;
    switch (m.kind) {
      case 'ohm':
        return this.ohms(m.net, groundNet(this.board), active, absent);
      case 'through': {
        const [a, b] = throughNets(this.board, m.ref, m.line);
        return absent.has(m.ref) ? values(one(OPEN_LOG_OHM, HEALTHY_SPREAD)) : this.ohms(a, b, active, absent);
      }
      case 'drop':
        return this.drop(m.net, this.dropContact(m.net), active, absent);
      case 'pin':
        return this.contactDrop(m.port, m.pin, active, absent);
      case 'joint':
        return this.jointDrop(m.ref, m.pin, active, absent);
      case 'volts':
        return this.volts(m.rail, active, absent);
      case 'usb':
        return this.meter(m.port, m.side, active, absent);
      case 'shape':
        return { kind: 'choice', chance: this.shapes(m.port, m.side, active, absent) };
      case 'talk':
        return { kind: 'choice', chance: this.stops(m.port, m.side, active, absent) };
      case 'tester':
        return { kind: 'verdict', failChance: this.testerFails(m.port, active, absent) };
      case 'swap':
        return { kind: 'verdict', failChance: this.swapFails(m.port, m.what, active, absent) };
      case 'look':
        return {
          kind: 'verdict',
          failChance: active.effects.some((e) => (e.kind === 'pinOpen' || e.kind === 'dirty') && e.ref === m.ref)
            ? 0.85
            : 0.04,
        };
      case 'image':
        return {
          kind: 'verdict',
          failChance: active.effects.some((e) => e.kind === 'imageBad' && e.ref === m.ref) ? 0.99 : 0.01,
        };
      case 'works':
        return { kind: 'verdict', failChance: this.fails(m.fn, active, absent) ? 0.97 : 0.03 };
    }
  }

  private ohms(a: string, b: string, fault: Fault, absent: ReadonlySet<string>): Prediction {
    const network = this.networkWithout(absent);
    const healthy = network.resistanceOhm(a, b);
    const ohm = network.resistanceOhm(a, b, ...conductanceChanges(fault.effects, network, groundNet(this.board)));
    const changed = Math.abs(Math.log10((ohm + LEADS_OHM) / (healthy + LEADS_OHM))) > 0.04;
    const lowEnd = 0.05 / (Math.max(0, ohm) + LEADS_OHM);
    return values(one(shownLogOhm(ohm), Math.hypot(HEALTHY_SPREAD + lowEnd, changed && ohm < 100 ? SHORT_SPREAD : 0)));
  }

  private meterCase(port: string, side: PlugSide, fault: Fault, absent: ReadonlySet<string>): MeterCase {
    return this.solve(fault, absent, { port, side, pack: 'in' }).meter;
  }

  /**
   * A bad charger mostly stays at its first 5 V; a cable whose CC wire is broken mostly lets nothing through at all.
   * Shares are engineering estimates.
   */
  private meter(port: string, side: PlugSide, fault: Fault, absent: ReadonlySet<string>): Prediction {
    const supply = fault.effects.find((e) => e.kind === 'outside' && e.what !== 'pack');
    const as = (meter: MeterCase): Prediction => meterReading(this.board, port, meter);
    if (supply?.kind !== 'outside') {
      const seen = this.meterCase(port, side, fault, absent);
      if (seen === 'noTalk' || !this.dirtyAt(port, side, fault)) return as(seen);
      return mixture([
        [0.5, as(seen)],
        [0.5, as('noTalk')],
      ]);
    }
    return supply.what === 'charger'
      ? mixture([
          [0.8, as('noTalk')],
          [0.12, as('nothing')],
          [0.08, as('contractCollapses')],
        ])
      : mixture([
          [0.8, as('nothing')],
          [0.2, as('noTalk')],
        ]);
  }

  /** True where the CC contact of this plug way is dirty: half of the tries fail (engineering estimate). */
  private dirtyAt(portId: string, side: PlugSide, { effects }: Fault): boolean {
    const cc = this.board.ports.find((p) => p.id === portId)!.sides.find((s) => s.side === side)!.ccNet;
    return effects.some((e) => e.kind === 'dirty' && e.ref === portId && e.net === cc);
  }

  /** Shares are engineering estimates after common practice: which fault makes the meter behave how. */
  private shapes(
    port: string,
    side: PlugSide,
    fault: Fault,
    absent: ReadonlySet<string>,
  ): Readonly<Record<Shape, number>> {
    const meter = this.meterCase(port, side, fault, absent);
    const lacks = (ref: string): boolean =>
      absent.has(ref) || fault.effects.some((e) => (e.kind === 'dead' || e.kind === 'open') && e.ref === ref);
    if (fault.effects.some((e) => e.kind === 'load')) return SHAPES_OF.early;
    if (fault.effects.some((e) => e.kind === 'imageBad')) return SHAPES_OF.badImage;
    if (meter === 'contractCollapses') return SHAPES_OF.collapsing;
    const running = meter === 'healthy' || meter === 'noCharge' || meter === 'preCharge';
    const missing = this.board.parts.some((p) => p.required && lacks(p.ref));
    return running && missing ? SHAPES_OF.restarting : SHAPES_OF.steady;
  }

  /** Where the conversation stops: what the controller, its supply, its image and the line allow. Shares as above. */
  private stops(
    port: string,
    side: PlugSide,
    fault: Fault,
    absent: ReadonlySet<string>,
  ): Readonly<Record<Stop, number>> {
    const has = (kind: Effect['kind']): boolean => fault.effects.some((e) => e.kind === kind);
    if (fault.effects.some((e) => e.kind === 'outside' && e.what === 'cable'))
      return stopChance({ silent: 0.8, noisy: 0.1 });
    if (fault.effects.some((e) => e.kind === 'outside' && e.what === 'charger'))
      return stopChance({ silent: 0.4, notReady: 0.3, collapsed: 0.2 });
    const meter = this.meterCase(port, side, fault, absent);
    if (meter !== 'nothing' && this.dirtyAt(port, side, fault)) return stopChance({ noisy: 0.7, contract: 0.2 });
    switch (meter) {
      case 'nothing':
        return stopChance({ silent: 0.9, noisy: 0.05 });
      case 'noTalk':
      case 'noTalkUnfed':
      case 'supplyShorted':
        return has('imageBad')
          ? stopChance({ offersNotAsked: 0.6, offersUnanswered: 0.2, refused: 0.15 })
          : stopChance({ offersUnanswered: 0.9, silent: 0.05 });
      case 'contractCollapses':
        return stopChance({ collapsed: 0.9, notReady: 0.05 });
      default:
        return stopChance({ contract: 0.95 });
    }
  }

  private talksAt(port: Port, fault: Fault, absent: ReadonlySet<string>): boolean {
    return port.sides.some(({ side }) => this.solve(fault, absent, { port: port.id, side, pack: 'in' }).talks);
  }

  /** Testers see whether the port talks, and are fooled by a bad connector. Shares are engineering estimates. */
  private testerFails(portId: string, fault: Fault, absent: ReadonlySet<string>): number {
    const port = this.board.ports.find((p) => p.id === portId)!;
    if (!this.talksAt(port, fault, absent)) return 0.92;
    return fault.effects.some((e) => e.kind === 'pinOpen' && e.ref === portId) ? 0.7 : 0.06;
  }

  /** With a known-good one it charges when nothing else is wrong. */
  private swapFails(portId: string, what: OutsideThing, fault: Fault, absent: ReadonlySet<string>): number {
    const rest = fault.effects.filter((e) => e.kind !== 'outside' || e.what !== what);
    if (rest.some((e) => e.kind === 'outside')) return 0.96;
    const left = { ...fault, id: `${fault.id}-${what}`, effects: rest };
    const good = (['A', 'B'] as const).every((side) => this.meterCase(portId, side, left, absent) === 'healthy');
    return good ? 0.04 : 0.98;
  }

  /** Contact of the port at which a net's drop is taken, where the net comes to a port. */
  private dropContact(net: string): string | undefined {
    return portPin(this.board, net)?.name.split('.')[1];
  }

  private contactDrop(portId: string, pin: string, fault: Fault, absent: ReadonlySet<string>): Prediction {
    const net = partByRef(this.board, portId)!.pins[pin];
    if (net === undefined || absent.has(portId)) return values(one(DROP_OPEN_V, DROP_SPREAD_V));
    if (net === groundNet(this.board)) return values(one(0, DROP_SPREAD_V));
    return this.drop(net, pin, fault, absent);
  }

  /** A joint stands on the board: what is open at the contacts of a port does not reach it. */
  private jointDrop(ref: string, pin: string, fault: Fault, absent: ReadonlySet<string>): Prediction {
    const net = partByRef(this.board, ref)!.pins[pin];
    if (net === undefined) return values(one(DROP_OPEN_V, DROP_SPREAD_V));
    if (net === groundNet(this.board)) return values(one(0, DROP_SPREAD_V));
    return this.drop(net, null, fault, absent);
  }

  /** @param contact of the port at which it is taken; null where it is taken on the board. */
  private drop(net: string, contact: string | null | undefined, fault: Fault, absent: ReadonlySet<string>): Prediction {
    const normal = this.board.nets[net].diodeV ?? 0.4;
    const ground = groundNet(this.board);
    const network = this.networkWithout(absent);
    const shorted =
      network.resistanceOhm(net, ground, ...conductanceChanges(fault.effects, network, ground)) <
        DROP_SHORT_BELOW_OHM && !this.board.nets[net].lowByNature;
    if (shorted) return values(one(DROP_SHORT_V, DROP_SPREAD_V));
    const isOpen = (e: Effect): boolean => e.kind === 'pinOpen' && e.net === net && (e.pin ?? contact) === contact;
    if (contact !== null && fault.effects.some(isOpen)) return values(one(DROP_OPEN_V, DROP_SPREAD_V));
    if (fault.effects.some((e) => e.kind === 'leak' && e.net === net))
      return values(one(LEAK_SHARE * normal, 2 * DROP_SPREAD_V));
    if (fault.effects.some((e) => e.kind === 'dirty' && e.net === net))
      return values(one(normal, DROP_SPREAD_V, 0.6), one(normal + 0.08, 0.04, 0.4));
    const { chips, cut } = this.behind(net, fault, absent);
    if (chips.length === 0) return values(one(cut ? DROP_OPEN_V : normal, DROP_SPREAD_V));
    if (chips.every((ref) => absent.has(ref))) return values(one(DROP_OPEN_V, DROP_SPREAD_V));
    const damaged = fault.effects.some(
      (e) =>
        (e.kind === 'inputs' && chips.includes(e.ref)) ||
        (e.kind === 'ccDead' && chips.includes(e.ref) && this.isCcNet(net, e.side)),
    );
    // Where the inputs are gone a part of the pins still reads normal (engineering estimate).
    return damaged
      ? values(one(normal, DROP_SPREAD_V, 0.3), one(DROP_OPEN_V, DROP_SPREAD_V, 0.4), one(normal + 0.15, 0.08, 0.3))
      : values(one(normal, DROP_SPREAD_V));
  }

  private isCcNet(net: string, side?: PlugSide): boolean {
    return this.board.ports.some((port) => port.sides.some((s) => (side ?? s.side) === s.side && s.ccNet === net));
  }

  /** Chips whose pins a net reaches through sound line filters; `cut` when a filter line on the way is open. */
  private behind(net: string, fault: Fault, absent: ReadonlySet<string>): { chips: readonly string[]; cut: boolean } {
    const opens = fault.effects.flatMap((e) => (e.kind === 'open' ? [e.element] : []));
    const sound = absent.size === 0 && opens.length === 0;
    const known = sound ? this.soundBehind.get(net) : undefined;
    if (known) return known;
    const found = behindNet(
      this.board,
      net,
      ['lineFilter'],
      (ref, line) => !absent.has(ref) && !opens.includes(`${ref}:${line}`),
    );
    if (sound) this.soundBehind.set(net, found);
    return found;
  }

  private volts(railId: string, fault: Fault, absent: ReadonlySet<string>): Prediction {
    const rail = this.board.rails.find((r) => r.id === railId)!;
    const port = rail.port ?? this.board.ports[0].id;
    const level = this.solve(fault, absent, { port, side: 'A', pack: 'out' }).railVolts.get(railId)!;
    // Behind a dead charge path the pack connector still shows about half a volt (common practice).
    if (level === 0 && this.isPackRail(rail.net)) return values(one(0.5, 0.12, 0.6), one(0, 0.03, 0.4));
    return values(one(level, 0.03 + 0.02 * level));
  }

  private isPackRail(net: string): boolean {
    return this.board.parts.some((p) => p.kind === 'batteryConnector' && Object.values(p.pins).includes(net));
  }

  /** True where effects hit a part of the function or its signals, whatever the rails do. */
  breaksDirectly(fn: BoardFunction, effects: readonly Effect[]): boolean {
    const signals = this.signalsOf(fn);
    const hit = effects.some((e) =>
      e.kind === 'pinOpen'
        ? fn.parts.includes(e.ref) && signals.has(e.net)
        : 'ref' in e && e.kind !== 'imageBad' && fn.parts.includes(e.ref),
    );
    const packFails =
      effects.some((e) => e.kind === 'outside' && e.what === 'pack') &&
      fn.parts.some((ref) => partByRef(this.board, ref)?.kind === 'batteryConnector');
    if (hit || packFails) return true;
    return effects.some(
      (e) => (e.kind === 'bridge' && signals.has(e.netA)) || (e.kind === 'shunt' && signals.has(e.net)),
    );
  }

  /** The signals that run between parts of a function; CC lines are left to the rails. */
  private signalsOf(fn: BoardFunction): ReadonlySet<string> {
    let nets = this.signals.get(fn.id);
    if (!nets) {
      const touching = new Map<string, number>();
      for (const ref of fn.parts)
        for (const net of new Set(signalNets(this.board, ref))) touching.set(net, (touching.get(net) ?? 0) + 1);
      nets = new Set([...touching].filter(([net, parts]) => parts > 1 && !this.isCcNet(net)).map(([net]) => net));
      this.signals.set(fn.id, nets);
    }
    return nets;
  }

  private fails(fnId: string, fault: Fault, absent: ReadonlySet<string>): boolean {
    const fn = this.board.functions.find((f) => f.id === fnId)!;
    if (fn.parts.some((ref) => absent.has(ref)) || this.breaksDirectly(fn, fault.effects)) return true;
    return this.board.ports.every((port) => {
      const { railVolts } = this.solve(fault, absent, { port: port.id, side: 'A', pack: 'in' });
      return fn.rails.some((id) => railVolts.get(id) === 0);
    });
  }
}

/** How a watched meter behaves, by what is wrong. Engineering estimates after the handbook of common practice. */
const SHAPES_OF: Readonly<Record<string, Readonly<Record<Shape, number>>>> = {
  steady: { steady: 0.97, swing: 0.01, restart: 0.01, early: 0.01 },
  badImage: { steady: 0.54, swing: 0.44, restart: 0.01, early: 0.01 },
  collapsing: { steady: 0.6, swing: 0.3, restart: 0.09, early: 0.01 },
  restarting: { steady: 0.12, swing: 0.02, restart: 0.85, early: 0.01 },
  early: { steady: 0.1, swing: 0.01, restart: 0.01, early: 0.88 },
};

/** The rest is shared out evenly: no answer is impossible. */
const stopChance = (known: Partial<Record<Stop, number>>): Readonly<Record<Stop, number>> => {
  const rest = (1 - Object.values(known).reduce((s, p) => s + p, 0)) / STOPS.length;
  return Object.fromEntries(STOPS.map((stop) => [stop, (known[stop] ?? 0) + rest])) as Record<Stop, number>;
};

const mixture = (parts: readonly (readonly [number, Prediction])[]): Prediction =>
  values(
    ...parts.flatMap(([share, p]) =>
      p.kind === 'values' ? p.alternatives.map((alt) => ({ ...alt, weight: alt.weight * share })) : [],
    ),
  );

function signalNets(board: Board, ref: string): string[] {
  return Object.values(partByRef(board, ref)!.pins).filter((net) => board.nets[net].role === 'signal');
}

/** The conductance changes of effects: one for a fault, two for a double fault. */
export function conductanceChanges(
  effects: readonly Effect[],
  network: ResistanceNetwork,
  ground: string,
): ConductanceChange[] {
  return effects.flatMap((e): ConductanceChange[] => {
    if (e.kind === 'shunt') return [{ a: e.net, b: ground, siemens: 1 / e.ohm }];
    if (e.kind === 'bridge') return [{ a: e.netA, b: e.netB, siemens: 1 / e.ohm }];
    return e.kind === 'open' ? [network.opening(e.element)].filter((c) => c !== undefined) : [];
  });
}
