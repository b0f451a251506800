import { groundNet, partByRef, type Board } from '../board';
import { singleFaults, type Effect, type Fault } from './faults';
import { measurementId, throughNets, type Measurement } from './measurement';
import { ResistanceNetwork, type ConductanceChange } from './network';
import { classify, type OutcomeClass } from './outcomes';
import { meterReading } from './meter';
import type { Alternative, Prediction } from './prediction';
import { solvePower, type PowerSolution, type SupplyState } from './power';

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
export const DROP_OPEN_V = 2;

const one = (mean: number, sd: number, weight = 1): Alternative => ({ means: [mean], sds: [sd], weight });
const values = (...alternatives: Alternative[]): Prediction => ({ kind: 'values', alternatives });

/** log10 of what the meter shows for a true resistance. */
export const shownLogOhm = (ohm: number): number => Math.min(OPEN_LOG_OHM, Math.log10(Math.max(0, ohm) + LEADS_OHM));

/** Predicts every reading of a board for any set of effects; keeps one network per set of absent parts. */
export class Predictor {
  private readonly networks = new Map<string, ResistanceNetwork>();
  private readonly power = new Map<string, PowerSolution>();

  private readonly rows = new Map<string, Prediction[]>();
  private readonly classes = new Map<string, OutcomeClass[]>();
  /** Every single fault of the board, in the order of all rows and classes. */
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

  /** One prediction per fault; kept, since it does not depend on the belief. */
  predictRow(m: Measurement, absent: ReadonlySet<string>, replaced: ReadonlySet<string>): Prediction[] {
    const key = `${measurementId(m)}|${[...absent].sort().join(' ')}|${[...replaced].sort().join(' ')}`;
    let row = this.rows.get(key);
    if (!row) this.rows.set(key, (row = this.faults.map((f) => this.predict(m, f, absent, replaced))));
    return row;
  }

  /** The classes of readings that a test can tell apart; kept likewise. */
  outcomeClasses(m: Measurement, absent: ReadonlySet<string>, replaced: ReadonlySet<string>): OutcomeClass[] {
    const key = `${measurementId(m)}|${[...absent].sort().join(' ')}|${[...replaced].sort().join(' ')}`;
    let classes = this.classes.get(key);
    if (!classes) this.classes.set(key, (classes = classify(this.predictRow(m, absent, replaced))));
    return classes;
  }

  private network(absent: ReadonlySet<string>): ResistanceNetwork {
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
    const gone = absent.has(fault.ref) || replaced.has(fault.ref) || replaced.has(fault.id);
    const active = gone ? { ...fault, id: 'sound', effects: [] } : fault;
    switch (m.kind) {
      case 'ohm':
        return this.ohms(m.net, groundNet(this.board), active, absent);
      case 'through': {
        const [a, b] = throughNets(this.board, m.ref, m.line);
        return absent.has(m.ref) ? values(one(OPEN_LOG_OHM, HEALTHY_SPREAD)) : this.ohms(a, b, active, absent);
      }
      case 'drop':
        return this.drop(m.net, active, absent);
      case 'volts':
        return this.volts(m.rail, active, absent);
      case 'usb':
        return meterReading(
          this.board,
          m.port,
          this.solve(active, absent, { port: m.port, side: m.side, pack: 'in' }).meter,
        );
      case 'look':
        return {
          kind: 'verdict',
          failChance: active.effects.some((e) => e.kind === 'pinOpen' && e.ref === m.ref) ? 0.85 : 0.04,
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
    const network = this.network(absent);
    const healthy = network.resistanceOhm(a, b);
    const change = conductanceChange(fault.effects, network, groundNet(this.board));
    const ohm = change ? network.resistanceOhm(a, b, change) : healthy;
    const changed = Math.abs(Math.log10((ohm + LEADS_OHM) / (healthy + LEADS_OHM))) > 0.04;
    const lowEnd = 0.05 / (Math.max(0, ohm) + LEADS_OHM);
    return values(one(shownLogOhm(ohm), Math.hypot(HEALTHY_SPREAD + lowEnd, changed && ohm < 100 ? SHORT_SPREAD : 0)));
  }

  private drop(net: string, fault: Fault, absent: ReadonlySet<string>): Prediction {
    const normal = this.board.nets[net].diodeV ?? 0.4;
    const ground = groundNet(this.board);
    const network = this.network(absent);
    const change = conductanceChange(fault.effects, network, ground);
    const shorted = network.resistanceOhm(net, ground, change) < 30 && !this.board.nets[net].lowByNature;
    if (shorted) return values(one(DROP_SHORT_V, DROP_SPREAD_V));
    if (fault.effects.some((e) => e.kind === 'pinOpen' && e.net === net))
      return values(one(DROP_OPEN_V, DROP_SPREAD_V));
    const { chips, cut } = this.behind(net, fault, absent);
    if (chips.length === 0) return values(one(cut ? DROP_OPEN_V : normal, DROP_SPREAD_V));
    if (chips.every((ref) => absent.has(ref))) return values(one(DROP_OPEN_V, DROP_SPREAD_V));
    const damaged = fault.effects.some(
      (e) =>
        (e.kind === 'dead' && chips.includes(e.ref)) ||
        (e.kind === 'ccDead' && chips.includes(e.ref) && this.isCcNet(net, e.side)),
    );
    // A chip that died inside often keeps its input diodes: half of them read normal (engineering estimate).
    return damaged
      ? values(one(normal, DROP_SPREAD_V, 0.5), one(DROP_OPEN_V, DROP_SPREAD_V, 0.25), one(normal + 0.15, 0.08, 0.25))
      : values(one(normal, DROP_SPREAD_V));
  }

  private isCcNet(net: string, side: 'A' | 'B'): boolean {
    return this.board.ports.some((port) => port.sides.some((s) => s.side === side && s.ccNet === net));
  }

  /** Chips whose pins a net reaches through sound line filters; `cut` when a filter line on the way is open. */
  private behind(net: string, fault: Fault, absent: ReadonlySet<string>): { chips: string[]; cut: boolean } {
    const nets = new Set([net]);
    let cut = false;
    for (const part of this.board.parts.filter((p) => p.kind === 'lineFilter')) {
      for (const line of ['a', 'b'] as const) {
        const [x, y] = throughNets(this.board, part.ref, line);
        if (x !== net && y !== net) continue;
        const open =
          absent.has(part.ref) || fault.effects.some((e) => e.kind === 'open' && e.element === `${part.ref}:${line}`);
        if (open) cut = true;
        else nets.add(x).add(y);
      }
    }
    const chips = this.board.parts
      .filter((p) => ACTIVE_KINDS.has(p.kind) && Object.values(p.pins).some((n) => nets.has(n)))
      .map((p) => p.ref);
    return { chips, cut };
  }

  private volts(railId: string, fault: Fault, absent: ReadonlySet<string>): Prediction {
    const rail = this.board.rails.find((r) => r.id === railId)!;
    const port = rail.port ?? this.board.ports[0].id;
    const level = this.solve(fault, absent, { port, side: 'A', pack: 'out' }).railVolts.get(railId)!;
    return values(one(level, 0.03 + 0.02 * level));
  }

  private fails(fnId: string, fault: Fault, absent: ReadonlySet<string>): boolean {
    const fn = this.board.functions.find((f) => f.id === fnId)!;
    const broken = fn.parts.some(
      (ref) =>
        absent.has(ref) ||
        fault.effects.some((e) => e.kind !== 'shunt' && e.kind !== 'bridge' && e.kind !== 'imageBad' && e.ref === ref),
    );
    if (broken) return true;
    const fnNets = new Set(fn.parts.flatMap((ref) => signalNets(this.board, ref)));
    if (
      fault.effects.some(
        (e) => (e.kind === 'bridge' && fnNets.has(e.netA)) || (e.kind === 'shunt' && fnNets.has(e.net)),
      )
    )
      return true;
    return this.board.ports.every((port) => {
      const { railVolts } = this.solve(fault, absent, { port: port.id, side: 'A', pack: 'in' });
      return fn.rails.some((id) => railVolts.get(id) === 0);
    });
  }
}

const ACTIVE_KINDS = new Set([
  'portController',
  'chargeController',
  'converter',
  'mux',
  'processor',
  'sensorHub',
  'flash',
]);

function signalNets(board: Board, ref: string): string[] {
  return Object.values(partByRef(board, ref)!.pins).filter((net) => board.nets[net].role === 'signal');
}

/** The one conductance change of a fault, if it has one. */
function conductanceChange(
  effects: readonly Effect[],
  network: ResistanceNetwork,
  ground: string,
): ConductanceChange | undefined {
  for (const e of effects) {
    if (e.kind === 'shunt') return { a: e.net, b: ground, siemens: 1 / e.ohm };
    if (e.kind === 'bridge') return { a: e.netA, b: e.netB, siemens: 1 / e.ohm };
    if (e.kind === 'open') return network.opening(e.element);
  }
  return undefined;
}
